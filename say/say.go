// Package say words what the core knows: the core gives an id and values, and what a person reads of them
// stands in one catalogue a language. So far it holds what the rules look for, in English.
package say

import (
	"embed"
	"encoding/json"
	"fmt"
	"sync"
)

//go:embed english/rules.json
var files embed.FS

// Looks is what a rule looks for, in words.
type Looks struct {
	Title   string `json:"title" doc:"what it looks for"`
	Explain string `json:"explain" doc:"why that matters"`
}

var rules = sync.OnceValue(func() map[string]Looks {
	doc, err := files.ReadFile("english/rules.json")
	out := map[string]Looks{}
	if err == nil {
		err = json.Unmarshal(doc, &out)
	}
	if err != nil {
		panic(fmt.Errorf("read the words of the rules: %w", err)) // it is built in
	}
	return out
})

// Rule words a rule by its id; of one that the catalogue does not hold, its title is the id.
func Rule(id string) Looks {
	if r, ok := rules()[id]; ok {
		return r
	}
	return Looks{Title: id}
}
