// Package seeded makes property tests draw the same cases at every run, so that
// a run says something about the change under test and not about luck. Import it
// for its effect from tests that use rapid. EXPLORE=1 draws fresh cases instead;
// `make explore` does so, many times over, to look for cases nobody thought of.
package seeded

import (
	"flag"
	"os"
	"strconv"

	_ "pgregory.net/rapid" // its flags must exist before one is set
)

func init() {
	if os.Getenv("EXPLORE") != "" {
		return
	}
	if err := flag.Set("rapid.seed", "20261125"); err != nil {
		panic("fixing the seed of property tests: " + err.Error())
	}
}

// Few lets the property tests of a package whose cases take long draw so many at a run;
// `make explore` draws a thousand.
func Few(n int) {
	if os.Getenv("EXPLORE") != "" {
		return
	}
	if err := flag.Set("rapid.checks", strconv.Itoa(n)); err != nil {
		panic("setting how many cases property tests draw: " + err.Error())
	}
}
