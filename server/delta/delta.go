// Package delta tells what changed between two JSON documents, of the older of which nothing is
// kept but digests.
//
// Of takes a document apart, Tree.Digest puts it in short, Tree.Since says what to change of a
// document with such a digest to come to this one. A list whose items have ids, all different, is
// told item by item; everything else that is short, or gains or loses a name, is told whole.
package delta

import (
	"bytes"
	"encoding/json"
	"fmt"
	"hash/maphash"
)

// Change is what is put in a place of a document: what is there now, or the items of a list in
// their order, of which those that no other change tells are as they were.
type Change struct {
	At    []string `json:"at" nullable:"false" doc:"the way there from the top: names, and ids of items of lists"`
	Is    any      `json:"is,omitempty" doc:"what is there now"`
	Order []string `json:"order,omitempty" doc:"or, of a list: ids of its items, in order; those not told are as they were"`
}

// Digest is a document in short: what is in each place, as numbers. Digests are of use only in
// the program that made them.
type Digest map[uint64]uint64

// Tree is a document taken apart.
type Tree struct{ top *node }

// short is the longest stretch of a document, in bytes, that is told whole when anything of it
// changes.
const short = 160

// node is a value of a document.
type node struct {
	raw   []byte
	names []string // of an object its names, of a list the ids of its items; of anything else none
	kids  []*node
	list  bool
}

// Of takes the document of a value apart, as json.Marshal writes it. The error is that of
// json.Marshal.
func Of(v any) (Tree, error) {
	doc, err := json.Marshal(v)
	if err != nil {
		return Tree{}, fmt.Errorf("take a document apart: %w", err)
	}
	n, _ := parse(doc, 0)
	return Tree{n}, nil
}

// parse reads the value that begins at i, and gives where it ends.
func parse(doc []byte, i int) (*node, int) {
	end := skip(doc, i)
	n := &node{raw: doc[i:end]}
	if len(n.raw) <= short {
		return n, end
	}
	switch doc[i] {
	case '{':
		for i++; doc[i] != '}'; {
			after := skip(doc, i)
			n.names = append(n.names, unquote(doc[i:after]))
			var kid *node
			kid, i = parse(doc, after+1) // a colon lies between
			n.kids = append(n.kids, kid)
			if doc[i] == ',' {
				i++
			}
		}
	case '[':
		n.list = true
		seen, named := map[string]bool{}, true
		for i++; doc[i] != ']'; {
			id := idOf(doc, i)
			named = named && id != "" && !seen[id]
			seen[id] = true
			var kid *node
			kid, i = parse(doc, i)
			n.names, n.kids = append(n.names, id), append(n.kids, kid)
			if doc[i] == ',' {
				i++
			}
		}
		if !named {
			n.names, n.kids = nil, nil
		}
	}
	return n, end
}

// skip is where the value that begins at i ends.
func skip(doc []byte, i int) int {
	switch doc[i] {
	case '"':
		for i++; ; i++ {
			i += bytes.IndexByte(doc[i:], '"')
			escapes := i
			for doc[escapes-1] == '\\' {
				escapes--
			}
			if (i-escapes)%2 == 0 {
				return i + 1
			}
		}
	case '{', '[':
		for deep := 0; ; {
			switch doc[i] {
			case '"':
				i = skip(doc, i)
				continue
			case '{', '[':
				deep++
			case '}', ']':
				if deep--; deep == 0 {
					return i + 1
				}
			}
			i++
		}
	}
	for i < len(doc) && doc[i] != ',' && doc[i] != '}' && doc[i] != ']' {
		i++
	}
	return i
}

// idOf is the id of the object that begins at i, or its key where its id is no word; empty where
// it has neither.
func idOf(doc []byte, i int) string {
	key := ""
	if doc[i] != '{' {
		return ""
	}
	for i++; doc[i] != '}'; {
		after := skip(doc, i)
		name := string(doc[i:after])
		end := skip(doc, after+1)
		if doc[after+1] == '"' {
			switch name {
			case `"id"`:
				return unquote(doc[after+1 : end])
			case `"key"`:
				key = unquote(doc[after+1 : end])
			}
		}
		if i = end; doc[i] == ',' {
			i++
		}
	}
	return key
}

func unquote(word []byte) (out string) {
	_ = json.Unmarshal(word, &out) // it was found to be valid
	return out
}

// Bytes is the document itself.
func (t Tree) Bytes() []byte { return t.top.raw }

// Digest puts the document in short.
func (t Tree) Digest() Digest {
	d := Digest{}
	t.top.digest(d, 0)
	return d
}

func (n *node) digest(d Digest, at uint64) {
	d[at] = sum(n.raw)
	if len(n.kids) == 0 {
		return
	}
	d[below(at, n.sort())] = n.named()
	for i, k := range n.kids {
		k.digest(d, below(at, n.names[i]))
	}
}

// Since lists what to change, one after another, of the document with a digest to come to this
// one; nothing where they are the same, all of it where the digest is empty.
func (t Tree) Since(was Digest) []Change {
	return t.top.since(was, 0, []string{}, []Change{})
}

func (n *node) since(was Digest, at uint64, way []string, out []Change) []Change {
	old, had := was[at]
	if had && old == sum(n.raw) {
		return out
	}
	names, parted := was[below(at, n.sort())]
	if !had || !parted || len(n.kids) == 0 || !n.list && names != n.named() {
		return append(out, Change{At: way, Is: json.RawMessage(n.raw)})
	}
	if names != n.named() {
		out = append(out, Change{At: way, Order: n.names})
	}
	for i, k := range n.kids {
		out = k.since(was, below(at, n.names[i]), append(way[:len(way):len(way)], n.names[i]), out)
	}
	return out
}

// sort says what is in a place that is told part by part.
func (n *node) sort() string {
	if n.list {
		return "\x00list"
	}
	return "\x00object"
}

// named is the names of a node in short, in their order.
func (n *node) named() uint64 {
	at := uint64(len(n.names))
	for _, name := range n.names {
		at = below(at, name)
	}
	return at
}

// seed makes the digests of one program.
var seed = maphash.MakeSeed()

func sum(b []byte) uint64 { return maphash.Bytes(seed, b) }

// below is the place of a name within a place.
func below(at uint64, name string) uint64 {
	return (at ^ maphash.String(seed, name)) * 0x9e3779b97f4a7c15
}
