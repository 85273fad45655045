// Package photos keeps clients' pictures as files beside the database: turned
// upright, stripped of everything but the picture itself (place, device and time
// with it), with a thumbnail.
package photos

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"image"
	_ "image/jpeg" // the formats that are read
	_ "image/png"
	"io"
	"os"
	"path/filepath"
	"slices"

	"github.com/disintegration/imaging"
	"github.com/google/uuid"
)

// Limits of a picture.
const (
	MostBytes  = 25 << 20
	mostPixels = 24_000_000
	keepSide   = 2400 // px, the longer side as it is kept
	thumbSide  = 320
	quality    = 88
)

// Refused is why a picture is not taken.
type Refused struct{ Reason string }

func (r *Refused) Error() string { return r.Reason }

// Folder is where the pictures are, a folder a studio.
type Folder string

func (f Folder) path(studio, photo uuid.UUID, thumb bool) string {
	name := photo.String() + ".jpg"
	if thumb {
		name = photo.String() + ".thumb.jpg"
	}
	return filepath.Join(string(f), studio.String(), name)
}

// atOnce is how many pictures are decoded at a time: each takes up to 8 bytes a
// point, and again 4 while it is turned.
var atOnce = make(chan struct{}, 2)

// Put reads a picture and keeps it. What is no picture, in a format that is not
// read, or too large is a *Refused; nothing is kept then. While others are decoded
// it waits its turn, until ctx ends.
func (f Folder) Put(ctx context.Context, studio, photo uuid.UUID, from io.Reader) (width, height int, err error) {
	b, err := io.ReadAll(io.LimitReader(from, MostBytes+1))
	if err != nil {
		return 0, 0, err
	}
	if len(b) > MostBytes {
		return 0, 0, &Refused{fmt.Sprintf("the picture is over %d MB; make it smaller first", MostBytes>>20)}
	}
	config, format, err := image.DecodeConfig(bytes.NewReader(b))
	switch {
	case err != nil:
		return 0, 0, &Refused{"this is no JPEG or PNG picture (phones can send “most compatible” ones)"}
	case !slices.Contains([]string{"jpeg", "png"}, format):
		return 0, 0, &Refused{"only JPEG and PNG pictures are read, not " + format}
	case config.Width*config.Height > mostPixels:
		return 0, 0, &Refused{
			fmt.Sprintf(
				"the picture has %d × %d points, more than %d million; make it smaller first",
				config.Width,
				config.Height,
				mostPixels/1_000_000,
			),
		}
	}
	select {
	case atOnce <- struct{}{}:
		defer func() { <-atOnce }()
	case <-ctx.Done():
		return 0, 0, ctx.Err()
	}
	img, err := imaging.Decode(bytes.NewReader(b), imaging.AutoOrientation(true))
	if err != nil {
		return 0, 0, &Refused{"the picture is damaged and cannot be read"}
	}
	kept := imaging.Fit(img, keepSide, keepSide, imaging.Lanczos)
	if err := os.MkdirAll(filepath.Join(string(f), studio.String()), 0o700); err != nil {
		return 0, 0, err
	}
	if err := write(f.path(studio, photo, true), imaging.Fit(kept, thumbSide, thumbSide, imaging.Lanczos)); err != nil {
		return 0, 0, err
	}
	if err := write(f.path(studio, photo, false), kept); err != nil {
		return 0, 0, errors.Join(err, f.Drop(studio, photo))
	}
	return kept.Bounds().Dx(), kept.Bounds().Dy(), nil
}

// write makes the file whole or not at all.
func write(path string, img image.Image) error {
	out, err := os.CreateTemp(filepath.Dir(path), ".new-*")
	if err != nil {
		return err
	}
	defer os.Remove(out.Name())
	if err := imaging.Encode(out, img, imaging.JPEG, imaging.JPEGQuality(quality)); err != nil {
		return errors.Join(err, out.Close())
	}
	if err := out.Close(); err != nil {
		return err
	}
	return os.Rename(out.Name(), path)
}

// Open opens a picture or its thumbnail; os.ErrNotExist when it is gone.
func (f Folder) Open(studio, photo uuid.UUID, thumb bool) (*os.File, error) {
	return os.Open(f.path(studio, photo, thumb))
}

// Drop takes a picture away; one that is gone already is no error.
func (f Folder) Drop(studio, photo uuid.UUID) error {
	var errs []error
	for _, thumb := range []bool{true, false} {
		if err := os.Remove(f.path(studio, photo, thumb)); err != nil && !errors.Is(err, os.ErrNotExist) {
			errs = append(errs, err)
		}
	}
	return errors.Join(errs...)
}
