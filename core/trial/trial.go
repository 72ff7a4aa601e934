// Package trial holds cards made to try the program on: every make of layer,
// plies, foam inside an image, pieces on prints, turned patterns, vellum, nests of
// mats, and cards with little or much wrong. Only tests import it.
package trial

import (
	"embed"
	"encoding/json"
	"fmt"
	"path"
	"strings"

	"ochrestone/core/card"
	"ochrestone/core/kit"
)

// Cards as they were stored by version 1 of the document, and a kit for them.
//
//go:embed kit.json cards/*.json
var files embed.FS

// Kit is what the cards are made from.
func Kit() kit.Kit {
	var k kit.Kit
	read("kit.json", &k)
	return k
}

// Named is a card with the name of its file.
type Named struct {
	Name string
	Card card.Card
}

// Cards gives them all by name, in that order, each afresh.
func Cards() []Named {
	list, err := files.ReadDir("cards")
	if err != nil {
		panic(err)
	}
	out := make([]Named, len(list))
	for i, f := range list {
		out[i].Name = strings.TrimSuffix(f.Name(), ".json")
		out[i].Card = Card(out[i].Name)
	}
	return append(out, Named{"everything", Everything()}, Named{"woven", Woven()}, Named{"twins", Twins()}, Named{"again", Again()}, Named{"shaking", Shaking()}, Named{"lifted", Lifted()})
}

// Card gives one of them by name.
func Card(name string) card.Card {
	b, err := files.ReadFile(path.Join("cards", name+".json"))
	if err != nil {
		panic(fmt.Sprintf("trial card %s: %v", name, err))
	}
	c, err := card.Read(b)
	if err != nil {
		panic(fmt.Sprintf("trial card %s: %v", name, err))
	}
	return c
}

func read(file string, into any) {
	b, err := files.ReadFile(file)
	if err == nil {
		err = json.Unmarshal(b, into)
	}
	if err != nil {
		panic(fmt.Sprintf("trial %s: %v", file, err))
	}
}
