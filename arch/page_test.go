package arch

import (
	"io/fs"
	"os"
	"path"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/graph/simple"
	"gonum.org/v1/gonum/graph/topo"
)

// rooms are the rooms of the page from the top down; a file may import only from its
// own room and the rooms after it.
var rooms = []string{"app", "stations", "stores", "parts", "ui", "api"}

var imported = regexp.MustCompile(`(?:from|import)\s*\(?\s*"(\.[^"]*)"`)

// pageImports are the files of the page and what each imports of the others, paths
// from web/src.
func pageImports(t *testing.T) map[string][]string {
	t.Helper()
	src := filepath.Join("..", "web", "src")
	out := map[string][]string{}
	require.NoError(t, fs.WalkDir(os.DirFS(src), ".", func(p string, d fs.DirEntry, err error) error {
		if err == nil && !d.IsDir() && (strings.HasSuffix(p, ".ts") || strings.HasSuffix(p, ".tsx")) {
			out[p] = nil
		}
		return err
	}))
	for p := range out {
		b, err := os.ReadFile(filepath.Join(src, p))
		require.NoError(t, err)
		for _, m := range imported.FindAllStringSubmatch(string(b), -1) {
			to := path.Join(path.Dir(p), m[1])
			if strings.HasSuffix(to, ".css") || strings.HasSuffix(to, ".json") && strings.Contains(p, ".test.") {
				continue
			}
			at := slices.IndexFunc([]string{".ts", ".tsx", ".d.ts"}, func(e string) bool { _, ok := out[to+e]; return ok })
			require.GreaterOrEqual(t, at, 0, "%s imports %s, which is not there", p, m[1])
			out[p] = append(out[p], to+[]string{".ts", ".tsx", ".d.ts"}[at])
		}
	}
	require.Greater(t, len(out), 40, "the files of the page")
	return out
}

// The page's imports point down its rooms, no station knows another, and no files
// import each other in a circle.
func TestRoomsOfThePage(t *testing.T) {
	files := pageImports(t)
	id, name := map[string]int64{}, map[int64]string{}
	g := simple.NewDirectedGraph()
	for p := range files {
		id[p] = int64(len(id))
		name[id[p]] = p
		g.AddNode(simple.Node(id[p]))
	}
	for from, tos := range files {
		for _, to := range tos {
			require.NotEqual(t, from, to)
			g.SetEdge(g.NewEdge(simple.Node(id[from]), simple.Node(id[to])))
			if from == "main.tsx" {
				continue
			}
			a, b := strings.Split(from, "/"), strings.Split(to, "/")
			ra, rb := slices.Index(rooms, a[0]), slices.Index(rooms, b[0])
			require.GreaterOrEqual(t, ra, 0, "%s lies in no room", from)
			assert.LessOrEqual(t, ra, rb, "%s imports %s, which is above it", from, to)
			if a[0] == "stations" && b[0] == "stations" {
				assert.Equal(t, a[1], b[1], "%s imports %s: a station knows no other", from, to)
			}
		}
	}
	for _, ring := range topo.TarjanSCC(g) {
		if len(ring) > 1 {
			var in []string
			for _, n := range ring {
				in = append(in, name[n.ID()])
			}
			assert.Fail(t, "files import each other in a circle", "%v", in)
		}
	}
}

// literal is a colour written out, as in a style sheet.
var literal = regexp.MustCompile(`#[0-9a-fA-F]{3,8}\b`)

// Colours of the page are named once, in ui/colours; what is written out elsewhere
// stands for paper and ink. The bound is the house's own.
func TestColoursAreNamedOnce(t *testing.T) {
	src := os.DirFS(filepath.Join("..", "web", "src"))
	found := map[string]int{}
	sum := 0
	require.NoError(t, fs.WalkDir(src, ".", func(p string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || p == "ui/colours.ts" || p == "ui/theme.ts" || strings.HasSuffix(p, ".d.ts") {
			return err
		}
		b, err := fs.ReadFile(src, p)
		if n := len(literal.FindAll(b, -1)); n > 0 {
			found[p], sum = n, sum+n
		}
		return err
	}))
	assert.Positive(t, sum, "the grounds of the table at least")
	assert.Less(t, sum, 60, "colours written out: %v", found)
}

// TestSizesAndSpacesAreNamedOnce: the library's parts and boxes take letters and rooms from
// the scale of the theme; drawings have their own.
func TestSizesAndSpacesAreNamedOnce(t *testing.T) {
	loose := regexp.MustCompile(`\b(?:p|px|py|pt|pb|pl|pr|m|mx|my|mt|mb|ml|mr|gap|fontSize)="-?\d[^"]*px|fontSize: \d`)
	require.NoError(t, filepath.WalkDir("../web/src", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || filepath.Ext(path) != ".tsx" {
			return err
		}
		raw, err := os.ReadFile(path)
		require.NoError(t, err)
		for _, m := range loose.FindAllString(string(raw), -1) {
			t.Errorf("%s: %s is no size of the theme (web/src/ui/sizes.ts)", path, m)
		}
		return nil
	}))
}
