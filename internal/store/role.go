package store

import (
	"context"
	"fmt"
)

// UnfitRole says why the app's role may not be used: it could get round the
// row-level security that keeps studios apart.
type UnfitRole struct{ Role, Why string }

func (u *UnfitRole) Error() string {
	return fmt.Sprintf(
		"the role %q of --database-url %s, so that row-level security would not hold for it; use a role that owns nothing and "+
			"may nothing but log in",
		u.Role,
		u.Why,
	)
}

// CheckRole refuses, with *UnfitRole, a role that is, or may become, a superuser,
// one that bypasses row-level security, or the owner of a table. ErrAway: the
// database could not be asked.
func (s *Store) CheckRole(ctx context.Context) error {
	var role string
	var super, bypass, owner bool
	err := s.Pool.QueryRow(ctx, `SELECT current_user,
		(SELECT bool_or(r.rolsuper) FROM pg_roles r WHERE pg_has_role(current_user, r.oid, 'MEMBER')),
		(SELECT bool_or(r.rolbypassrls) FROM pg_roles r WHERE pg_has_role(current_user, r.oid, 'MEMBER')),
		EXISTS (SELECT 1 FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
			WHERE n.nspname = 'public' AND c.relkind IN ('r', 'p', 'v') AND
				pg_has_role(current_user, c.relowner, 'MEMBER'))`).Scan(&role, &super, &bypass, &owner)
	switch {
	case err != nil:
		return classify(err)
	case super:
		return &UnfitRole{role, "is a superuser, or may become one"}
	case bypass:
		return &UnfitRole{role, "bypasses row-level security, or may"}
	case owner:
		return &UnfitRole{role, "owns tables, or may act for their owner"}
	}
	return nil
}
