package main

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// lines are what go test -json prints of a package with a test that passes and one that fails.
const lines = `{"Action":"output","Package":"ochrestone/a","Test":"TestGood","Output":"loud\n"}
{"Action":"pass","Package":"ochrestone/a","Test":"TestGood","Elapsed":7.5}
{"Action":"pass","Package":"ochrestone/a","Test":"TestGood/part","Elapsed":7.4}
{"Action":"output","Package":"ochrestone/a","Test":"TestBad","Output":"what went wrong\n"}
{"Action":"fail","Package":"ochrestone/a","Test":"TestBad","Elapsed":0.1}
{"Action":"output","Package":"ochrestone/a","Output":"FAIL\tochrestone/a\t130s\n"}
{"Action":"fail","Package":"ochrestone/a","Elapsed":130}
`

func TestAFailureIsToldWhole(t *testing.T) {
	var out strings.Builder
	ok, err := read(strings.NewReader(lines), &out)
	require.NoError(t, err)
	assert.False(t, ok)
	assert.Contains(t, out.String(), "what went wrong")
	assert.NotContains(t, out.String(), "loud", "of a test that passes nothing is told")
	assert.Contains(t, out.String(), "    7.5 s  a TestGood\n")
	assert.NotContains(t, out.String(), "part")
	assert.Contains(t, out.String(), "a took 130 s")
}

func TestAllWell(t *testing.T) {
	var out strings.Builder
	ok, err := read(strings.NewReader(strings.Split(lines, "\n")[1]), &out)
	require.NoError(t, err)
	assert.True(t, ok)
	for _, bad := range []string{"", "not json\n", `{"Action":"build-output","ImportPath":"x","Output":"syntax error\n"}` + "\n" + `{"Action":"build-fail","ImportPath":"x"}`} {
		out.Reset()
		ok, err = read(strings.NewReader(bad), &out)
		require.NoError(t, err)
		assert.False(t, ok, bad)
	}
	assert.Contains(t, out.String(), "syntax error")
}
