// Package stance holds what coaches believe beyond mechanics: rules with their
// grades, the stances that choose among them, and the bias of a set-up under a
// stance with the whisker over all of them.
//
// Rules are data (data/*.yaml). A rule multiplies biases only under stances that
// use it and only if its mechanism holds or partly holds; folklore is shown and
// counts nothing.
package stance
