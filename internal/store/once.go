package store

import "errors"

// ErrTaken says that an id was sent again with other content, or is somebody
// else's; nothing was kept under it this time.
var ErrTaken = errors.New("this id was used for something else")

// once ends a write whose id the client made: it was kept now (rows 1), or the same
// was kept before. Anything else under the id is ErrTaken, wherever it lies.
func once(rows int64, err error, same func() (bool, error)) error {
	if err != nil || rows > 0 {
		return err
	}
	ok, err := same()
	if err == nil && !ok {
		return ErrTaken
	}
	return err
}
