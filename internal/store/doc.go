// Package store keeps what the product knows in PostgreSQL: migrations, queries
// and one file an aggregate. It decides nothing; it makes sure that every row
// belongs to one studio, that a save counts once and that a stale one is told.
package store
