package table

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The bytes of "Grün;£" by the standards: UTF-8 (RFC 3629), UTF-16 (RFC 2781),
// ISO 8859-1.
func TestTextInWhateverLetters(t *testing.T) {
	for as, raw := range map[string][]byte{
		"UTF-8":        {'G', 'r', 0xc3, 0xbc, 'n', ';', 0xc2, 0xa3},
		"Windows-1252": {'G', 'r', 0xfc, 'n', ';', 0xa3},
		"UTF-16":       {0xff, 0xfe, 'G', 0, 'r', 0, 0xfc, 0, 'n', 0, ';', 0, 0xa3, 0},
	} {
		got, said, err := Text(raw)
		require.NoError(t, err, as)
		assert.Equal(t, "Grün;£", string(got))
		assert.Equal(t, as, said)
	}
	got, _, err := Text([]byte{0xfe, 0xff, 0, 'G', 0, 'r'})
	require.NoError(t, err)
	assert.Equal(t, "Gr", string(got))
	got, _, err = Text([]byte{'G', 0, 'r', 0, 'a', 0, 'u', 0})
	require.NoError(t, err)
	assert.Equal(t, "Grau", string(got))
	_, _, err = Text([]byte("PK\x03\x04\x00\x00sheet"))
	assert.ErrorIs(t, err, ErrBinary)
	_, _, err = Text([]byte{0xff, 0xfe, 0x00, 0xd8, 'a', 0})
	assert.ErrorContains(t, err, "damaged")
}

// Cells that table programs run as formulas (OWASP, CSV injection) are written so
// that they do not, and come back as they were.
func TestCellsAreNotRun(t *testing.T) {
	for _, cell := range []string{"=1+1", "+cmd", "-Madder", "@sum", "\tx", "plain", "'quoted", "-5", "+4.5", "", "-", "1-2"} {
		safe := Safe(cell)
		assert.Equal(t, cell, Plain(safe), cell)
		if cell != "" && cell != "-5" && cell != "+4.5" {
			assert.NotContains(t, runs, safe[:1], cell)
		}
	}
	var b bytes.Buffer
	require.NoError(t, Write(&b, [][]string{{"name", "x"}, {"=HYPERLINK(\"a\")", "-3.5"}}))
	assert.Equal(t, "name,x\n\"'=HYPERLINK(\"\"a\"\")\",-3.5\n", b.String())
}
