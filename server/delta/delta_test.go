package delta

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func plain(t require.TestingT, text string) (out any) {
	require.NoError(t, json.Unmarshal([]byte(text), &out), text)
	return out
}

// value draws a value: words long and short, lists with ids and without, objects.
func value(t *rapid.T, deep int) any {
	switch kind := rapid.IntRange(0, 6).Draw(t, "kind"); {
	case kind == 0 || deep == 0:
		return strings.Repeat(rapid.SampledFrom([]string{"a", `"\`, "{[", "é<"}).Draw(t, "word"), rapid.IntRange(0, 60).Draw(t, "long"))
	case kind == 1:
		return rapid.Float64Range(-9, 9).Draw(t, "number")
	case kind == 2:
		return nil
	case kind == 3:
		out := map[string]any{}
		for _, n := range rapid.SliceOfN(rapid.SampledFrom([]string{"x", "y", "drawn", "id"}), 0, 4).Draw(t, "names") {
			out[n] = value(t, deep-1)
		}
		return out
	case kind == 4:
		var out []any
		for range rapid.IntRange(0, 3).Draw(t, "items") {
			out = append(out, value(t, deep-1))
		}
		return out
	}
	out := []any{}
	word := rapid.SampledFrom([]string{"id", "key"}).Draw(t, "called")
	for _, id := range rapid.Permutation([]string{"e1", "e2", "e3", "e4"}).Draw(t, "ids")[:rapid.IntRange(0, 4).Draw(t, "n")] {
		m := map[string]any{word: id, "of": value(t, deep-1)}
		if rapid.Bool().Draw(t, "more") {
			m["more"] = value(t, deep-1)
		}
		out = append(out, m)
	}
	return out
}

// Of any two documents, the changes make the one of the other.
func TestChangesMakeTheNewOfTheOld(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		old, now := value(t, 4), value(t, 4)
		if rapid.Bool().Draw(t, "near") {
			// The same but for one place.
			raw, _ := json.Marshal(old)
			now = plain(t, string(raw))
			if m, ok := now.(map[string]any); ok {
				m["x"] = value(t, 2)
			}
			if l, ok := now.([]any); ok && len(l) > 0 {
				if m, ok := l[0].(map[string]any); ok {
					m["of"] = value(t, 2)
				}
			}
		}
		a, err := json.Marshal(old)
		require.NoError(t, err)
		b, err := json.Marshal(now)
		require.NoError(t, err)
		was, err := Of(old)
		require.NoError(t, err)
		is, err := Of(now)
		require.NoError(t, err)
		made, err := Apply(plain(t, string(a)), is.Since(was.Digest()))
		require.NoError(t, err)
		got, err := json.Marshal(made)
		require.NoError(t, err)
		assert.JSONEq(t, string(b), string(got))
		assert.Empty(t, was.Since(was.Digest()), "nothing changed")
	})
}

// Of a long list only what changed is told, and what went, came or moved by its ids.
func TestOnlyWhatChangedIsTold(t *testing.T) {
	item := func(id string, x int) string {
		return fmt.Sprintf(`{"id":%q,"x":%d,"drawn":%q}`, id, x, strings.Repeat("M0 0", 100))
	}
	doc := func(items ...string) Tree {
		tree, err := Of(json.RawMessage(`{"list":[` + strings.Join(items, ",") + `],"title":"A"}`))
		require.NoError(t, err)
		return tree
	}
	was := doc(item("a", 1), item("b", 2), item("c", 3)).Digest()
	got, err := json.Marshal(doc(item("a", 1), item("b", 9), item("c", 3)).Since(was))
	require.NoError(t, err)
	assert.JSONEq(t, `[{"at":["list","b","x"],"is":9}]`, string(got))
	got, err = json.Marshal(doc(item("c", 3), item("a", 1)).Since(was))
	require.NoError(t, err)
	assert.JSONEq(t, `[{"at":["list"],"order":["c","a"]}]`, string(got))
	fresh := doc(item("a", 1), item("b", 2), item("d", 4), item("c", 3)).Since(was)
	require.Len(t, fresh, 2)
	assert.Equal(t, []string{"a", "b", "d", "c"}, fresh[0].Order)
	assert.Equal(t, []string{"list", "d"}, fresh[1].At)
	all := doc(item("a", 1)).Since(nil)
	require.Len(t, all, 1)
	assert.Empty(t, all[0].At, "of what was never sent all is told")
	_, err = Apply(map[string]any{"list": []any{}}, []Change{{At: []string{"list", "gone", "x"}, Is: 1}})
	assert.ErrorContains(t, err, "list, gone")
	_, err = Of(func() {})
	assert.ErrorContains(t, err, "take a document apart")
}

func BenchmarkSince(b *testing.B) {
	var items []string
	for i := range 400 {
		items = append(items, fmt.Sprintf(`{"id":"e%d","x":%d,"drawn":%q}`, i, i, strings.Repeat("M12.34 5.67", 100)))
	}
	doc := []byte(`{"list":[` + strings.Join(items, ",") + `]}`)
	tree, err := Of(json.RawMessage(doc))
	if err != nil {
		b.Fatal(err)
	}
	was := tree.Digest()
	b.SetBytes(int64(len(doc)))
	for b.Loop() {
		tree, _ = Of(json.RawMessage(doc))
		tree.Since(was)
		tree.Digest()
	}
}
