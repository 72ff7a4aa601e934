package arch

import (
	"encoding/json"
	"errors"
	"io"
	"os/exec"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// floors are the packages of the house from the ground up; a package may
// import only from lower floors.
var floors = [][]string{
	{"tools/seeded", "tools/mutate/on"},
	{"core/together", "core/memory", "core/words", "core/measure", "core/colour", "core/shape"},
	{"core/bounds", "core/bend"},
	{"core/kit"},
	{"core/basic"},
	{"core/card"},
	{"core/motif", "core/layout", "core/blend"},
	{"core/trial"},
	{"core/ramp", "core/register"},
	{"core/look", "core/assemble"},
	{"core/build", "core/placing"},
	{"core/cover", "core/depth", "core/work"},
	{"core/cut", "core/scene"},
	{"core/advise", "core/meant"},
	{"core/foresee", "core/standing"},
	{"core/plan"},
	{"core/remember"},
	{"vision/picture"},
	{"vision/trace"},
	{"vision/mat"},
	{"vision/swatch", "vision/palette", "vision/proof", "vision/axes", "vision/finished"},
	{"exchange/table", "exchange/calendar"},
	{"exchange/svgin"},
	{"store", "exchange/setsvg", "exchange/inkfile", "exchange/shelf"},
	{"demo", "demo/sim", "demo/drawn"},
	{"exchange/sheet"},
	{"exchange/everything", "exchange/bundle"},
	{"web", "server/delta", "say"},
	{"server"},
	{"cmd/ochrestone", "demo/draw", "tools/hostile", "tools/dist", "tools/trials", "tools/mutate", "tools/tests", "e2e", "arch"},
}

// notInCore may not be imported, directly or through others, by the core.
var notInCore = []string{"net/http", "database/sql"}

type pkg struct {
	ImportPath   string
	Imports      []string
	TestImports  []string
	XTestImports []string
	Deps         []string
}

// lent is what tests may borrow from above their floor: the demo's kit and cards, and
// its simulated scanner.
var lent = []string{"demo", "demo/sim", "demo/drawn"}

func packages(t *testing.T) []pkg {
	out, err := exec.Command("go", "list", "-json=ImportPath,Imports,TestImports,XTestImports,Deps", "ochrestone/...").Output()
	require.NoError(t, err)
	var all []pkg
	d := json.NewDecoder(strings.NewReader(string(out)))
	for {
		var p pkg
		err := d.Decode(&p)
		if errors.Is(err, io.EOF) {
			break
		}
		require.NoError(t, err)
		all = append(all, p)
	}
	return all
}

func floor(path string) int {
	return slices.IndexFunc(floors, func(f []string) bool { return slices.Contains(f, path) })
}

func TestArrowsPointDown(t *testing.T) {
	all := packages(t)
	require.Greater(t, len(all), 15)
	for _, p := range all {
		path := strings.TrimPrefix(p.ImportPath, "ochrestone/")
		at := floor(path)
		require.GreaterOrEqual(t, at, 0, "%s has no floor: give it one here and in docs/ARCHITECTURE.md", path)
		for _, i := range p.Imports {
			if to, ours := strings.CutPrefix(i, "ochrestone/"); ours {
				assert.Less(t, floor(to), at, "%s imports %s, which is not beneath it", path, to)
			}
		}
		for _, i := range slices.Concat(p.TestImports, p.XTestImports) {
			if to, ours := strings.CutPrefix(i, "ochrestone/"); ours && to != path && !slices.Contains(lent, to) {
				assert.Less(t, floor(to), at, "the tests of %s import %s, which is not beneath it", path, to)
			}
		}
	}
}

func TestCoreIsPure(t *testing.T) {
	for _, p := range packages(t) {
		path := strings.TrimPrefix(p.ImportPath, "ochrestone/")
		if !strings.HasPrefix(path, "core/") {
			continue
		}
		assert.NotContains(t, p.Imports, "os", path)
		assert.NotContains(t, p.Imports, "time", "%s: a plan has no clock", path)
		for _, d := range p.Imports {
			assert.NotContains(t, notInCore, d, path)
			for _, up := range []string{"vision", "exchange", "store", "server", "web", "demo"} {
				assert.False(t, strings.HasPrefix(d, "ochrestone/"+up), "%s imports %s", path, d)
			}
		}
	}
}
