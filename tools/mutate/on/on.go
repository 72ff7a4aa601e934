// Package on is the switch of lines that `make mutate` breaks: one of them at a time, in a build
// made for it. Nothing else imports it.
package on

import (
	"os"
	"strconv"
)

// which is the broken line; 0: none is.
var which, _ = strconv.Atoi(os.Getenv("MUTANT"))

// Now reports whether a line is the broken one.
func Now(n int) bool { return n == which }
