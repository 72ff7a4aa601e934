package bundle_test

import (
	"archive/zip"
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"regexp"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ochrestone/core/card"
	"ochrestone/core/kit"
	"ochrestone/core/plan"
	"ochrestone/demo"
	"ochrestone/exchange/bundle"
)

var at = time.Date(2026, 11, 27, 12, 0, 0, 0, time.UTC)

func packed(t testing.TB, c card.Card, k kit.Kit) []byte {
	b, err := bundle.Of(c, k)
	require.NoError(t, err)
	var w bytes.Buffer
	require.NoError(t, bundle.Write(&w, b, []byte("<svg/>"), at))
	return w.Bytes()
}

// stores makes a kit of what came in.
func stores(t *testing.T, k kit.Kit, put []bundle.Item) kit.Kit {
	for _, it := range put {
		var err error
		switch it.Kind {
		case "sets":
			err = into(&k.Sets, it.Doc, func(v kit.Set) bool { return v.ID == it.ID })
		case "inks":
			err = into(&k.Inks, it.Doc, func(v kit.Ink) bool { return v.ID == it.ID })
		case "papers":
			err = into(&k.Papers, it.Doc, func(v kit.Cardstock) bool { return v.ID == it.ID })
		case "spacers":
			err = into(&k.Spacers, it.Doc, func(v kit.Spacer) bool { return v.ID == it.ID })
		case "adhesives":
			err = into(&k.Adhesives, it.Doc, func(v kit.Adhesive) bool { return v.ID == it.ID })
		case "envelopes":
			err = into(&k.Envelopes, it.Doc, func(v kit.Envelope) bool { return v.ID == it.ID })
		}
		require.NoError(t, err)
	}
	return k
}

func into[T any](list *[]T, doc []byte, is func(T) bool) error {
	var v T
	if err := json.Unmarshal(doc, &v); err != nil {
		return err
	}
	for i, have := range *list {
		if is(have) {
			(*list)[i] = v
			return nil
		}
	}
	*list = append(*list, v)
	return nil
}

func fresh() func() string {
	n := 0
	return func() string { n++; return fmt.Sprint("fresh", n) }
}

// Every card of the demo, carried into empty stores, is the same to the last field, and its
// plan says the same there: nothing it is made of was left behind.
func TestACardCarriedIntoEmptyStoresIsTheSame(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	for _, c := range demo.Cards(k) {
		b, err := bundle.Read(packed(t, c, k))
		require.NoError(t, err, c.Title)
		got, put, err := bundle.Take(b, kit.Kit{}, nil, fresh())
		require.NoError(t, err, c.Title)
		want, err := json.Marshal(c)
		require.NoError(t, err)
		have, err := json.Marshal(got)
		require.NoError(t, err)
		assert.JSONEq(t, string(want), string(have), c.Title)
		all := stores(t, kit.Kit{}, put)
		assert.NotEmpty(t, all.Papers, c.Title)
		// Swatches of the drawer and machines stay at home; a plan is made without them.
		home := k
		home.Swatches, home.Machines = nil, nil
		a, d := plan.Of(c, home), plan.Of(got, all)
		for _, part := range [][2]any{{a.Front, d.Front}, {a.Steps, d.Steps}, {a.Patterns, d.Patterns}} {
			want, err := json.Marshal(part[0])
			require.NoError(t, err)
			have, err := json.Marshal(part[1])
			require.NoError(t, err)
			assert.JSONEq(t, rounded(want), rounded(have), c.Title)
		}
	}
}

// rounded writes the numbers of a document to a millionth: sums made in another order differ
// in their last digits.
func rounded(doc []byte) string {
	return regexp.MustCompile(`-?\d+\.\d{7,}(e-?\d+)?`).ReplaceAllStringFunc(string(doc), func(n string) string {
		v, err := strconv.ParseFloat(n, 64)
		if err != nil {
			return n
		}
		return strconv.FormatFloat(v, 'f', 6, 64)
	})
}

// Of what differs, mine stays, theirs takes its place, or both are kept and the card that
// came in names the one that came with it.
func TestWhatDiffersIsChosen(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	c := demo.Cards(k)[0]
	data := packed(t, c, k)
	b, err := bundle.Read(data)
	require.NoError(t, err)
	all, err := bundle.Compare(b, k)
	require.NoError(t, err)
	for _, it := range all {
		assert.Equal(t, bundle.Same, it.State, "%s %s", it.Kind, it.Name)
	}
	_, put, err := bundle.Take(b, k, nil, fresh())
	require.NoError(t, err)
	assert.Empty(t, put, "what is there already does not come in again")

	used := b.Items[len(b.Items)-1]
	for _, it := range b.Items {
		if it.Kind == "papers" {
			used = it
		}
	}
	other := k
	other.Papers = append([]kit.Cardstock{}, k.Papers...)
	for i := range other.Papers {
		if other.Papers[i].ID == used.ID {
			other.Papers[i].Caliper += 0.05
		}
	}
	all, err = bundle.Compare(b, other)
	require.NoError(t, err)
	differs := 0
	for _, it := range all {
		if it.State == bundle.Differs {
			differs++
			require.Len(t, it.Unlike, 1)
			u := it.Unlike[0]
			assert.Equal(t, []string{"thickness", "mm"}, []string{u.Word, u.Unit})
			mine, err1 := strconv.ParseFloat(u.Mine, 64)
			their, err2 := strconv.ParseFloat(u.Their, 64)
			require.NoError(t, errors.Join(err1, err2))
			assert.InDelta(t, 0.05, mine-their, 1e-9, "mine is thicker by so much")
		}
	}
	assert.Equal(t, 1, differs)
	key := "papers " + used.ID
	names := func(c card.Card, id string) int {
		doc, err := json.Marshal(c)
		require.NoError(t, err)
		return strings.Count(string(doc), `"`+id+`"`)
	}
	mine, put, err := bundle.Take(b, other, nil, fresh())
	require.NoError(t, err)
	assert.Empty(t, put)
	assert.Positive(t, names(mine, used.ID))
	_, put, err = bundle.Take(b, other, map[string]bundle.Choice{key: bundle.Theirs}, fresh())
	require.NoError(t, err)
	require.Len(t, put, 1)
	assert.Equal(t, used.ID, put[0].ID)
	both, put, err := bundle.Take(b, other, map[string]bundle.Choice{key: bundle.Both}, fresh())
	require.NoError(t, err)
	require.NotEmpty(t, put)
	assert.Equal(t, "fresh1", put[0].ID)
	assert.Contains(t, string(put[0].Doc), "brought in")
	assert.Zero(t, names(both, used.ID), "the card names the one it came with")
	assert.Equal(t, names(c, used.ID), names(both, "fresh1"))
	require.NoError(t, both.Validate())
}

// Swatches travel with their inks and papers, under the ids they are kept by there, and never
// take the place of a measurement that is there.
func TestSwatchesTravel(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	c := demo.Cards(k)[0]
	bare, err := bundle.Of(c, k)
	require.NoError(t, err)
	var ink, paper string
	for _, it := range bare.Items {
		switch it.Kind {
		case "inks":
			ink = it.ID
		case "papers":
			paper = it.ID
		}
	}
	mine := kit.Swatch{Ink: ink, Paper: paper, Impressions: 2, Dry: "#102030", On: "2026-03-01"}
	k.Swatches = append(k.Swatches, mine, kit.Swatch{Ink: "of-another-card", Paper: paper, Impressions: 1, Dry: "#000000"})
	b, err := bundle.Read(packed(t, c, k))
	require.NoError(t, err)
	require.Equal(t, []kit.Swatch{mine}, b.Swatches, "those of its inks on its papers")
	swatchesOf := func(put []bundle.Item) (out []kit.Swatch) {
		for _, it := range put {
			if it.Kind == "swatches" {
				var s kit.Swatch
				require.NoError(t, json.Unmarshal(it.Doc, &s))
				assert.Equal(t, s.ID(), it.ID)
				require.NoError(t, s.Validate())
				out = append(out, s)
			}
		}
		return out
	}
	_, put, err := bundle.Take(b, kit.Kit{}, nil, fresh())
	require.NoError(t, err)
	assert.Equal(t, []kit.Swatch{mine}, swatchesOf(put), "into empty stores")
	_, put, err = bundle.Take(b, k, nil, fresh())
	require.NoError(t, err)
	assert.Empty(t, swatchesOf(put), "it is there")
	other := k
	other.Swatches = nil
	other.Inks = append([]kit.Ink{}, k.Inks...)
	for i := range other.Inks {
		if other.Inks[i].ID == ink {
			other.Inks[i].Dry = "#fefefe"
		}
	}
	_, put, err = bundle.Take(b, other, nil, fresh())
	require.NoError(t, err)
	assert.Empty(t, swatchesOf(put), "my ink is another: what theirs dries to says nothing of it")
	_, put, err = bundle.Take(b, other, map[string]bundle.Choice{"inks " + ink: bundle.Both}, fresh())
	require.NoError(t, err)
	moved := mine
	moved.Ink = "fresh1"
	assert.Equal(t, []kit.Swatch{moved}, swatchesOf(put), "of theirs beside mine")
}

// What is no bundle, newer, torn or a trap is refused in words.
func TestWhatIsNoBundleIsRefused(t *testing.T) {
	k, err := demo.Kit()
	require.NoError(t, err)
	good := packed(t, demo.Cards(k)[0], k)
	again := func(change func(name string, data []byte) []byte) []byte {
		z, err := zip.NewReader(bytes.NewReader(good), int64(len(good)))
		require.NoError(t, err)
		var out bytes.Buffer
		w := zip.NewWriter(&out)
		for _, f := range z.File {
			r, err := f.Open()
			require.NoError(t, err)
			data, err := io.ReadAll(r)
			require.NoError(t, err)
			if data = change(f.Name, data); data == nil {
				continue
			}
			to, err := w.Create(f.Name)
			require.NoError(t, err)
			_, err = to.Write(data)
			require.NoError(t, err)
		}
		require.NoError(t, w.Close())
		return out.Bytes()
	}
	only := func(name string, with []byte) []byte {
		return again(func(n string, data []byte) []byte {
			if n == name {
				return with
			}
			return data
		})
	}
	_, err = bundle.Read([]byte("a shopping list"))
	require.ErrorIs(t, err, bundle.ErrForeign)
	_, err = bundle.Read(good[:len(good)/2])
	require.Error(t, err)
	_, err = bundle.Read(only("ochre.json", nil))
	require.ErrorIs(t, err, bundle.ErrForeign)
	_, err = bundle.Read(only("card.json", nil))
	require.ErrorIs(t, err, bundle.ErrForeign)
	_, err = bundle.Read(only("ochre.json", []byte(`{"ochre":2}`)))
	require.ErrorContains(t, err, "newer Ochrestone")
	_, err = bundle.Read(only("card.json", []byte(`{"version":999}`)))
	require.ErrorContains(t, err, "bring this program up to date")
	_, err = bundle.Read(only("card.json", bytes.Repeat([]byte{' '}, 97<<20)))
	require.ErrorContains(t, err, "that is no card", "a file that swells")
	_, err = bundle.Read(make([]byte, bundle.MaxBytes+1))
	require.ErrorContains(t, err, "MB")
	strange := again(func(n string, data []byte) []byte {
		if strings.HasPrefix(n, "stores/papers/") {
			return []byte(`[1]`)
		}
		return data
	})
	_, err = bundle.Read(strange)
	require.ErrorContains(t, err, "is not one of the papers")
	climb := again(func(n string, data []byte) []byte { return data })
	b, err := bundle.Read(climb)
	require.NoError(t, err)
	assert.NotEmpty(t, b.Items)
}

func FuzzRead(f *testing.F) {
	k, err := demo.Kit()
	if err != nil {
		f.Fatal(err)
	}
	f.Add(packed(f, demo.Cards(k)[1], k))
	f.Add([]byte("PK\x03\x04"))
	f.Fuzz(func(t *testing.T, data []byte) {
		b, err := bundle.Read(data)
		if err != nil {
			return
		}
		if _, _, err := bundle.Take(b, kit.Kit{}, nil, fresh()); err == nil {
			_, _ = bundle.Compare(b, k)
		}
	})
}
