package people

import (
	"context"
	"fmt"

	"github.com/google/uuid"

	"musculus/internal/core/secret"
	"musculus/internal/core/text"
	"musculus/internal/httpapi/request"
	"musculus/internal/store"
)

// What letters say, plain and short.

func invitationLetter(to, by, studio, role, link string) store.Letter {
	return store.Letter{
		ID: uuid.Must(uuid.NewV7()), To: to, Subject: fmt.Sprintf("%s asks you to join %s", by, studio),
		Says: fmt.Sprintf(`Hello,

%s asks you to join %s as %s.

Open this link within %d hours; it opens once:
%s

If you do not know what this is about, leave it: nothing happens.
`, by, studio, role, int(store.InvitationFor.Hours()), link),
	}
}

func passwordLetter(to, link string) store.Letter {
	return store.Letter{
		ID: uuid.Must(uuid.NewV7()), To: to, Subject: "A new password",
		Says: fmt.Sprintf(`Hello,

somebody, hopefully you, asked for a new password. Open this link within %d minutes; it opens once:
%s

If it was not you, leave it: your password stays as it is.
`, int(store.NewPasswordFor.Minutes()), link),
	}
}

// forgottenDoors are those that asking for a letter comes to: nobody is flooded with them.
func forgottenDoors(ctx context.Context, email string) []store.Guess {
	return []store.Guess{
		{Door: secret.Account, What: "letter to " + text.Address(email)},
		{Door: secret.Address, What: request.AddressOf(ctx)},
	}
}

// tokenDoor is the one that whoever guesses links comes to.
func tokenDoor(ctx context.Context) store.Guess {
	return store.Guess{Door: secret.Address, What: "links from " + request.AddressOf(ctx)}
}

var roleWords = map[store.Role]string{store.Owner: "an owner", store.Coach: "a coach", store.Assistant: "an assistant"}
