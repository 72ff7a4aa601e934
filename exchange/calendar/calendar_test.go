package calendar

import (
	"bytes"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// By RFC 5545: lines end in CR LF and are folded at 75 octets, never within a character;
// commas, semicolons and line breaks in texts are escaped (3.3.11); times are in UTC.
func TestByTheStandard(t *testing.T) {
	at := time.Date(2026, 11, 28, 7, 30, 0, 0, time.FixedZone("x", 3600))
	var b bytes.Buffer
	long := strings.Repeat("Glaze, thick; über ", 12) + "\nend"
	require.NoError(t, Write(&b, at, []Event{{ID: "a", At: at, What: long}}))
	s := b.String()
	unfolded := strings.ReplaceAll(s, "\r\n ", "")
	for _, l := range strings.Split(strings.TrimSuffix(s, "\r\n"), "\r\n") {
		assert.LessOrEqual(t, len(l), 75)
		assert.True(t, strings.ToValidUTF8(l, "?") == l, l)
	}
	assert.NotContains(t, strings.ReplaceAll(s, "\r\n", ""), "\n")
	assert.Contains(t, unfolded, `SUMMARY:Glaze\, thick\; über `)
	assert.Contains(t, unfolded, `\nend`)
	assert.Contains(t, unfolded, "DTSTART:20261128T063000Z\r\nDTEND:20261128T064500Z")
	assert.True(t, strings.HasPrefix(s, "BEGIN:VCALENDAR\r\nVERSION:2.0\r\n"))
	assert.True(t, strings.HasSuffix(s, "END:VCALENDAR\r\n"))
	assert.Equal(t, strings.Count("\r\n"+s, "\r\nBEGIN:"), strings.Count(s, "\r\nEND:"))
}
