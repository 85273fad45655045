// Package week puts set-ups and doses together: slots in order make a session,
// sessions make a week. It counts what each head gets and how long it takes.
package week
