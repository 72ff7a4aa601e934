package store

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"hash/fnv"
	"slices"
	"sync"

	"ochrestone/core/bounds"
	"ochrestone/core/card"
	"ochrestone/core/kit"
)

// kitMemo remembers the kit as it was last read: with some hundreds of sets it
// takes long to read, and every plan wants it.
type kitMemo struct {
	mu    sync.Mutex
	have  *kit.Kit
	apart []Apart // what could not be read of it
	marks map[string]uint64
	// marked is the state of the stores of which marks are.
	marked [2]int64
	data   int64 // SQLite's count of changes made by other connections
	others int64 // the same, as it was counted last
	turn   int   // grows with every change of our own
}

// forget drops what is remembered, after a change.
func (m *kitMemo) forget() {
	m.mu.Lock()
	defer m.mu.Unlock()
	m.have = nil
	m.turn++
}

// Turn tells states of the stores apart while the data file is open: it changes with every
// change of them.
func (s *Store) Turn(ctx context.Context) ([2]int64, error) {
	data, err := s.others(ctx)
	if err != nil {
		return [2]int64{}, fmt.Errorf("look for changes of the stores: %w", plain(err))
	}
	s.memo.mu.Lock()
	defer s.memo.mu.Unlock()
	return [2]int64{data, int64(s.memo.turn)}, nil
}

// others is SQLite's count of changes of the file by other programs. Only the connection that
// writes can tell them from our own: while it writes, what it said last holds.
func (s *Store) others(ctx context.Context) (data int64, err error) {
	m := &s.memo
	if s.db.Stats().InUse > 0 {
		m.mu.Lock()
		defer m.mu.Unlock()
		return m.others, nil
	}
	if err = s.db.QueryRowContext(ctx, "PRAGMA data_version").Scan(&data); err != nil {
		return data, err
	}
	m.mu.Lock()
	defer m.mu.Unlock()
	m.others = data
	return data, nil
}

// Kit gives everything the person owns. The lists are the caller's own; what
// the items hold, such as outlines, is not to be changed.
func (s *Store) Kit(ctx context.Context) (kit.Kit, error) {
	data, err := s.others(ctx)
	if err != nil {
		return kit.Kit{}, fmt.Errorf("read the stores: %w", plain(err))
	}
	m := &s.memo
	m.mu.Lock()
	turn := m.turn
	if m.have != nil && m.data == data {
		k := own(*m.have)
		m.mu.Unlock()
		return k, nil
	}
	m.mu.Unlock()
	k, apart, err := s.readKit(ctx)
	if err != nil {
		return k, err
	}
	m.mu.Lock()
	defer m.mu.Unlock()
	if m.turn == turn { // nothing changed while it was read
		kept := k
		m.have, m.data, m.apart = &kept, data, apart
	}
	return own(k), nil
}

// Marks tell states of the things of the stores apart: each has one by its kind and id, with a
// slash between, that changes with it. The map is not to be changed.
func (s *Store) Marks(ctx context.Context) (map[string]uint64, error) {
	at, err := s.Turn(ctx)
	if err != nil {
		return nil, err
	}
	m := &s.memo
	m.mu.Lock()
	if m.marks != nil && m.marked == at {
		defer m.mu.Unlock()
		return m.marks, nil
	}
	m.mu.Unlock()
	marks := map[string]uint64{}
	err = each(ctx, s.read, `SELECT kind, id, doc FROM items`, func(rows *sql.Rows) error {
		var kind, id string
		var doc sql.RawBytes
		if err := rows.Scan(&kind, &id, &doc); err != nil {
			return err
		}
		h := fnv.New64a()
		_, _ = h.Write(doc) // a hash takes everything
		marks[kind+"/"+id] = h.Sum64()
		return nil
	})
	if err != nil {
		return nil, fmt.Errorf("read the stores: %w", err)
	}
	m.mu.Lock()
	defer m.mu.Unlock()
	m.marks, m.marked = marks, at
	return marks, nil
}

// own copies the lists of a kit and the parts of its sets.
func own(k kit.Kit) kit.Kit {
	k.Sets, k.Inks, k.Papers = slices.Clone(k.Sets), slices.Clone(k.Inks), slices.Clone(k.Papers)
	k.Spacers, k.Adhesives = slices.Clone(k.Spacers), slices.Clone(k.Adhesives)
	k.Envelopes, k.Swatches, k.Machines = slices.Clone(k.Envelopes), slices.Clone(k.Swatches), slices.Clone(k.Machines)
	k.Gems = slices.Clone(k.Gems)
	for i := range k.Sets {
		k.Sets[i].Parts = slices.Clone(k.Sets[i].Parts)
	}
	return k
}

func emptyKit() *kit.Kit {
	return &kit.Kit{Sets: []kit.Set{}, Inks: []kit.Ink{}, Papers: []kit.Cardstock{}, Spacers: []kit.Spacer{}, Adhesives: []kit.Adhesive{}, Envelopes: []kit.Envelope{}, Gems: []kit.Gem{}, Machines: []kit.Machine{}, Swatches: []kit.Swatch{}}
}

// readKit reads everything the person owns from the file. What cannot be read is
// set apart.
func (s *Store) readKit(ctx context.Context) (kit.Kit, []Apart, error) {
	k := emptyKit()
	apart := []Apart{}
	rows, err := s.read.QueryContext(ctx, `SELECT kind, id, doc FROM items ORDER BY position, id`)
	if err != nil {
		return *k, nil, fmt.Errorf("read the stores: %w", plain(err))
	}
	defer rows.Close()
	for rows.Next() {
		var kind, id string
		var doc []byte
		if err := rows.Scan(&kind, &id, &doc); err != nil {
			return *k, nil, fmt.Errorf("read the stores: %w", plain(err))
		}
		if err := take(kind, id, doc, k); err != nil {
			apart = append(apart, Apart{kind, id, nameIn(doc), err.Error()})
		}
	}
	return *k, apart, plain(rows.Err())
}

// take reads a document into the list of its kind.
// It returns an error for what is no such thing, for one of another id, and for a kind there is
// not.
func take(kind, id string, doc []byte, k *kit.Kit) error {
	if t := bytes.TrimSpace(doc); len(t) == 0 || t[0] != '{' { // null is JSON, and no thing
		return fmt.Errorf("%.20q is no thing of the stores", t)
	}
	var own struct{ ID string }
	if err := json.Unmarshal(doc, &own); err != nil {
		return err
	}
	if own.ID != "" && own.ID != id { // swatches have none of their own
		return fmt.Errorf("it is kept as %q and calls itself %q", id, own.ID)
	}
	switch kind {
	case KindSet:
		return into(&k.Sets, doc)
	case KindInk:
		return into(&k.Inks, doc)
	case KindPaper:
		return into(&k.Papers, doc)
	case KindSpacer:
		return into(&k.Spacers, doc)
	case KindAdhesive:
		return into(&k.Adhesives, doc)
	case KindEnvelope:
		return into(&k.Envelopes, doc)
	case KindGem:
		return into(&k.Gems, doc)
	case KindMachine:
		return into(&k.Machines, doc)
	case KindSwatch:
		return into(&k.Swatches, doc)
	}
	return fmt.Errorf("there is no kind of thing called %q", kind)
}

func into[T any](list *[]T, doc []byte) error {
	var v T
	if err := json.Unmarshal(doc, &v); err != nil {
		return err
	}
	if err := bounds.Check(v); err != nil {
		return err
	}
	*list = append(*list, v)
	return nil
}

// Item is a kit item to store.
type Item struct {
	Kind, ID string
	Value    any
}

// Put stores a kit item, new or changed.
func (s *Store) Put(ctx context.Context, kind, id string, item any) error {
	return s.PutAll(ctx, Item{kind, id, item})
}

// PutAll stores kit items, new or changed: all of them or, when one fails,
// none.
func (s *Store) PutAll(ctx context.Context, items ...Item) error {
	defer s.memo.forget()
	return s.tx(ctx, func(tx *sql.Tx) error { return putAll(ctx, tx, items) })
}

// putAll stores kit items after the last there is, whose place is looked up once.
func putAll(ctx context.Context, tx *sql.Tx, items []Item) error {
	if len(items) == 0 {
		return nil
	}
	var last int64
	if err := tx.QueryRowContext(ctx, `SELECT coalesce(max(position), 0) FROM items`).Scan(&last); err != nil {
		return fmt.Errorf("store what came in: %w", err)
	}
	put, err := tx.PrepareContext(ctx, `INSERT INTO items (kind, id, doc, position) VALUES (?, ?, ?, ?) ON CONFLICT (kind, id) DO UPDATE SET doc = excluded.doc`)
	if err != nil {
		return fmt.Errorf("store what came in: %w", err)
	}
	defer put.Close()
	for i, it := range items {
		doc, err := json.Marshal(it.Value)
		if err == nil {
			err = take(it.Kind, it.ID, doc, emptyKit()) // what could not be read again is not stored
		}
		if excess := (*bounds.Excess)(nil); errors.As(err, &excess) {
			err = kit.Problem{Path: excess.Path, What: excess.What}
		}
		if err == nil {
			_, err = put.ExecContext(ctx, it.Kind, it.ID, doc, last+int64(i)+1)
		}
		if err != nil {
			return fmt.Errorf("store %s %.60q: %w", it.Kind, it.ID, err)
		}
	}
	return nil
}

// AddWith stores a new card and kit items it brings, new or changed: all of it or, when
// anything fails, nothing.
func (s *Store) AddWith(ctx context.Context, id string, c card.Card, items ...Item) (Saved, error) {
	defer s.memo.forget()
	err := s.tx(ctx, func(tx *sql.Tx) error {
		if err := putAll(ctx, tx, items); err != nil {
			return err
		}
		return s.add(ctx, tx, id, c)
	})
	if err != nil {
		return Saved{}, fmt.Errorf("take card %.60q in: %w", c.Title, err)
	}
	return s.Card(ctx, id)
}

// Doc is a kit item as it is stored.
func (s *Store) Doc(ctx context.Context, kind, id string) ([]byte, error) {
	var doc []byte
	if err := s.read.QueryRowContext(ctx, `SELECT doc FROM items WHERE kind = ? AND id = ?`, kind, id).Scan(&doc); err != nil {
		return nil, fmt.Errorf("read %s %q: %w", kind, id, missing(err))
	}
	return doc, nil
}

// PutAway keeps a kit item as no longer in the stores, for the cards that use it.
func (s *Store) PutAway(ctx context.Context, kind, id string) error {
	doc, err := s.Doc(ctx, kind, id)
	if err != nil {
		return err
	}
	fields := map[string]json.RawMessage{}
	if err := json.Unmarshal(doc, &fields); err != nil {
		return fmt.Errorf("put %s %q away: %w: %w", kind, id, ErrTorn, err)
	}
	fields["away"] = json.RawMessage("true")
	return s.Put(ctx, kind, id, fields)
}

// Take removes a kit item.
func (s *Store) Take(ctx context.Context, kind, id string) error {
	r, err := s.db.ExecContext(ctx, `DELETE FROM items WHERE kind = ? AND id = ?`, kind, id)
	s.memo.forget()
	if err != nil {
		return fmt.Errorf("remove %s %q: %w", kind, id, plain(err))
	}
	if n, _ := r.RowsAffected(); n == 0 {
		return fmt.Errorf("remove %s %q: %w", kind, id, ErrNotFound)
	}
	return nil
}
