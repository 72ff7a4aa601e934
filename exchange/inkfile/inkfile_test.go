package inkfile_test

import (
	"bytes"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/kit"
	"ochrestone/demo"
	"ochrestone/exchange/inkfile"
)

func TestTableRoundTrip(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	hide, minutes, heat := 0.3, 7.5, false
	k.Inks[0].Hide, k.Inks[0].DryMinutes, k.Inks[0].NeedsHeat, k.Inks[0].Where, k.Inks[0].Low = &hide, &minutes, &heat, "drawer 2, left", true
	var b bytes.Buffer
	require.NoError(t, inkfile.WriteCSV(&b, k.Inks))
	r, err := inkfile.ReadCSV(b.Bytes())
	require.NoError(t, err)
	assert.Empty(t, r.Notes)
	require.Len(t, r.Inks, len(k.Inks))
	for i := range r.Inks {
		want := k.Inks[i]
		want.ID, want.Paper = "", ""
		assert.Equal(t, want, r.Inks[i])
	}
}

func TestTablesAsPeopleWriteThem(t *testing.T) {
	r, err := inkfile.ReadCSV([]byte("\xef\xbb\xbfDry;Name;Comment;Kind\r\n#E9C957;Gorse;mine;dye\r\nb4524f;\"Madder; full\";;Pigment\r\n"))
	require.NoError(t, err)
	require.Len(t, r.Inks, 2)
	assert.Equal(t, "#e9c957", r.Inks[0].Dry)
	assert.Equal(t, "Madder; full", r.Inks[1].Name)
	assert.Equal(t, kit.Pigment, r.Inks[1].Kind)

	r, err = inkfile.ReadCSV([]byte("name,dry,kind,hiding power\nGood,#112233,dye,0.2\nNo colour,,dye,\nOdd,plum,dye,\nFar,#112233,lava,\nLoud,#112233,dye,lots\n"))
	require.NoError(t, err)
	assert.Len(t, r.Inks, 1)
	require.Len(t, r.Notes, 4)
	for i, w := range []string{"line 3, No colour", "line 4, Odd", "line 5, Far", "line 6, Loud"} {
		assert.Contains(t, r.Notes[i], w)
	}
}

func TestBadTablesNameTheLine(t *testing.T) {
	for in, says := range map[string]string{
		"":                        "empty",
		"ink,colour\na,#112233\n": "no column called name",
		"name,dry\n":              "There is no ink",
		"name,dry\nA,nope\n":      "No ink could be read",
		"name,dry\n\"A,#112233\n": "line",
		"name,dry\n" + many(5001): "more than 5000",
	} {
		_, err := inkfile.ReadCSV([]byte(in))
		require.Error(t, err, "%.30q", in)
		assert.Contains(t, err.Error(), says)
	}
}

func many(n int) string {
	var b strings.Builder
	for i := range n {
		fmt.Fprintf(&b, "Ink %d,#112233\n", i)
	}
	return b.String()
}

func TestPaletteRoundTripAndNotes(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	var b bytes.Buffer
	require.NoError(t, inkfile.WriteGPL(&b, "Quillmarsh", k.Inks))
	r, err := inkfile.ReadGPL(b.Bytes())
	require.NoError(t, err)
	require.Len(t, r.Inks, len(k.Inks))
	assert.Equal(t, "Madder, pale", r.Inks[0].Name)
	assert.Equal(t, "Madder", r.Inks[0].Family)
	assert.Equal(t, "pale", r.Inks[0].Depth)
	assert.Equal(t, k.Inks[0].Dry, r.Inks[0].Dry)
	r, err = inkfile.ReadGPL([]byte("GIMP Palette\nName: x\n#\n10 20 30\n300 1 1 Too much\n1 2\n"))
	require.NoError(t, err)
	assert.Equal(t, "Colour 1", r.Inks[0].Name)
	assert.Len(t, r.Notes, 2)
	_, err = inkfile.ReadGPL([]byte("hello"))
	assert.ErrorContains(t, err, "not a palette")
}

func TestDuplicatesAreFound(t *testing.T) {
	have := []kit.Ink{{Name: "Gorse, soft", Dry: "#e9c957"}}
	r := inkfile.Fresh(have, inkfile.Read{Inks: []kit.Ink{{Name: "gorse, SOFT", Dry: "#000000"}, {Name: "Broom", Dry: "#e9c958"}, {Name: "Soot", Dry: "#26282b"}, {Name: "Soot", Dry: "#26282b"}}})
	require.Len(t, r.Inks, 2)
	notes := strings.Join(r.Notes, "\n")
	assert.Contains(t, notes, "gorse, SOFT is in the drawer already")
	assert.Contains(t, notes, "Broom dries like Gorse, soft")
	assert.Contains(t, notes, "Soot is in the drawer already")
}
