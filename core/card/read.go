package card

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
)

// ErrNewer is returned for a card that a later version of the program made.
var ErrNewer = errors.New("this card was made by a newer Ochrestone")

// Read reads a stored card. Older versions are brought up to this one; fields and kinds
// it does not know are kept and written again; a newer version is refused with
// ErrNewer. The card is not checked: see Validate.
func Read(b []byte) (Card, error) {
	var head struct {
		Version int `json:"version"`
	}
	if err := json.Unmarshal(b, &head); err != nil {
		return Card{}, fmt.Errorf("read the card: %w", err)
	}
	if t := bytes.TrimSpace(b); t[0] != '{' { // null is JSON, and no card
		return Card{}, fmt.Errorf("read the card: %.20q is no card", t)
	}
	if head.Version > Version {
		return Card{}, fmt.Errorf("%w (document version %d; this one reads up to %d); bring this program up to date", ErrNewer, head.Version, Version)
	}
	if head.Version < 2 {
		var err error
		if b, err = upgrade1(b); err != nil {
			return Card{}, fmt.Errorf("bring the card up from version %d: %w", head.Version, err)
		}
	}
	var c Card
	if err := json.Unmarshal(b, &c); err != nil {
		return Card{}, fmt.Errorf("read the card: %w", err)
	}
	if c.Motifs == nil {
		c.Motifs = []Motif{}
	}
	if c.Elements == nil {
		c.Elements = []Element{}
	}
	if c.SetAside == nil {
		c.SetAside = []Aside{}
	}
	return c, nil
}
