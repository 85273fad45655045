package photos_test

import (
	"bytes"
	"context"
	"encoding/binary"
	"hash/crc32"
	"image"
	"image/color"
	"image/gif"
	"image/jpeg"
	"image/png"
	"io"
	"os"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/photos"
)

func picture(w, h int) image.Image {
	img := image.NewRGBA(image.Rect(0, 0, w, h))
	for x := range w {
		for y := range h {
			img.Set(x, y, color.RGBA{uint8(x), uint8(y), 90, 255})
		}
	}
	return img
}

// located is a JPEG that says where it was taken and that it lies on its side.
func located(t *testing.T, w, h int) []byte {
	var b bytes.Buffer
	require.NoError(t, jpeg.Encode(&b, picture(w, h), nil))
	tiff := []byte("II*\x00\x08\x00\x00\x00\x02\x00" + // little-endian, two entries
		"\x12\x01\x03\x00\x01\x00\x00\x00\x06\x00\x00\x00" + // orientation 6: turn right
		"\x0e\x01\x02\x00\x0c\x00\x00\x00\x26\x00\x00\x00" + // description at 38
		"\x00\x00\x00\x00" + "HARBOUR 57N\x00")
	app1 := append([]byte("Exif\x00\x00"), tiff...)
	head := []byte{0xff, 0xd8, 0xff, 0xe1, 0, 0}
	binary.BigEndian.PutUint16(head[4:], uint16(len(app1)+2))
	return append(append(head, app1...), b.Bytes()[2:]...)
}

func TestAPictureIsUprightSmallAndSaysNoPlace(t *testing.T) {
	f := photos.Folder(t.TempDir())
	studio, id := uuid.New(), uuid.New()
	raw := located(t, 3000, 1500)
	require.Contains(t, string(raw), "HARBOUR")
	w, h, err := f.Put(context.Background(), studio, id, bytes.NewReader(raw))
	require.NoError(t, err)
	assert.Equal(t, [2]int{1200, 2400}, [2]int{w, h}, "turned upright and made smaller")
	for _, thumb := range []bool{false, true} {
		file, err := f.Open(studio, id, thumb)
		require.NoError(t, err)
		b, err := io.ReadAll(file)
		require.NoError(t, err)
		require.NoError(t, file.Close())
		assert.NotContains(t, string(b), "HARBOUR")
		assert.NotContains(t, string(b), "Exif")
		kept, err := jpeg.DecodeConfig(bytes.NewReader(b))
		require.NoError(t, err)
		assert.LessOrEqual(t, max(kept.Width, kept.Height), map[bool]int{true: 320, false: 2400}[thumb])
	}
	require.NoError(t, f.Drop(studio, id))
	require.NoError(t, f.Drop(studio, id), "gone already")
	_, err = f.Open(studio, id, false)
	assert.ErrorIs(t, err, os.ErrNotExist)
}

// bomb is a small PNG that says it is huge.
func bomb() []byte {
	var b bytes.Buffer
	b.WriteString("\x89PNG\r\n\x1a\n")
	ihdr := []byte("IHDR\x00\x00\xff\xff\x00\x00\xff\xff\x08\x02\x00\x00\x00")
	_ = binary.Write(&b, binary.BigEndian, uint32(13))
	b.Write(ihdr)
	_ = binary.Write(&b, binary.BigEndian, crc32.ChecksumIEEE(ihdr))
	return b.Bytes()
}

func TestWhatIsNoPictureIsRefusedInWords(t *testing.T) {
	f := photos.Folder(t.TempDir())
	var g, p bytes.Buffer
	require.NoError(t, gif.Encode(&g, picture(8, 8), nil))
	require.NoError(t, png.Encode(&p, picture(40, 20)))
	for name, c := range map[string]struct {
		body []byte
		says string
	}{
		"text":           {[]byte("not a picture"), "no JPEG or PNG"},
		"nothing":        {nil, "no JPEG or PNG"},
		"another kind":   {g.Bytes(), "not gif"},
		"huge inside":    {bomb(), "65535 × 65535"},
		"40 MB":          {[]byte(strings.Repeat("x", 40<<20)), "over 25 MB"},
		"half a picture": {located(t, 800, 600)[:5000], "damaged"},
	} {
		_, _, err := f.Put(context.Background(), uuid.New(), uuid.New(), bytes.NewReader(c.body))
		var refused *photos.Refused
		require.ErrorAs(t, err, &refused, name)
		assert.Contains(t, refused.Reason, c.says, name)
	}
	_, _, err := f.Put(context.Background(), uuid.New(), uuid.New(), &p)
	assert.NoError(t, err, "a PNG is read")
	left, err := os.ReadDir(string(f))
	require.NoError(t, err)
	assert.Len(t, left, 1, "nothing of the refused ones is kept")
}
