// Package formats reads and writes the files and streams that leave or enter
// the program: a reader or writer a file. What they mean is decided by the
// core; nothing here computes.
package formats
