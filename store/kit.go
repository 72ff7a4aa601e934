package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"fmt"
	"slices"
	"sync"

	"ochrestone/core/kit"
)

// kitMemo remembers the kit as it was last read: with some hundreds of sets it
// takes long to read, and every plan wants it.
type kitMemo struct {
	mu    sync.Mutex
	have  *kit.Kit
	apart []Apart // what could not be read of it
	data  int64   // SQLite's count of changes made by other connections
	turn  int     // grows with every change of our own
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
	var data int64
	if err := s.db.QueryRowContext(ctx, "PRAGMA data_version").Scan(&data); err != nil {
		return [2]int64{}, fmt.Errorf("look for changes of the stores: %w", plain(err))
	}
	s.memo.mu.Lock()
	defer s.memo.mu.Unlock()
	return [2]int64{data, int64(s.memo.turn)}, nil
}

// Kit gives everything the person owns. The lists are the caller's own; what
// the items hold, such as outlines, is not to be changed.
func (s *Store) Kit(ctx context.Context) (kit.Kit, error) {
	var data int64
	if err := s.db.QueryRowContext(ctx, "PRAGMA data_version").Scan(&data); err != nil {
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

// own copies the lists of a kit and the parts of its sets.
func own(k kit.Kit) kit.Kit {
	k.Sets, k.Inks, k.Papers = slices.Clone(k.Sets), slices.Clone(k.Inks), slices.Clone(k.Papers)
	k.Spacers, k.Adhesives = slices.Clone(k.Spacers), slices.Clone(k.Adhesives)
	k.Envelopes, k.Swatches, k.Machines = slices.Clone(k.Envelopes), slices.Clone(k.Swatches), slices.Clone(k.Machines)
	for i := range k.Sets {
		k.Sets[i].Parts = slices.Clone(k.Sets[i].Parts)
	}
	return k
}

func emptyKit() *kit.Kit {
	return &kit.Kit{Sets: []kit.Set{}, Inks: []kit.Ink{}, Papers: []kit.Cardstock{}, Spacers: []kit.Spacer{}, Adhesives: []kit.Adhesive{}, Envelopes: []kit.Envelope{}, Machines: []kit.Machine{}, Swatches: []kit.Swatch{}}
}

// readKit reads everything the person owns from the file. What cannot be read is
// set apart.
func (s *Store) readKit(ctx context.Context) (kit.Kit, []Apart, error) {
	k := emptyKit()
	apart := []Apart{}
	rows, err := s.db.QueryContext(ctx, `SELECT kind, id, doc FROM items ORDER BY position, id`)
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
		if err := take(kind, doc, k); err != nil {
			apart = append(apart, Apart{kind, id, nameIn(doc), err.Error()})
		}
	}
	return *k, apart, plain(rows.Err())
}

// take reads a document into the list of its kind.
func take(kind string, doc []byte, k *kit.Kit) error {
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
	case KindMachine:
		return into(&k.Machines, doc)
	case KindSwatch:
		return into(&k.Swatches, doc)
	}
	return nil
}

func into[T any](list *[]T, doc []byte) error {
	var v T
	if err := json.Unmarshal(doc, &v); err != nil {
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
	return s.tx(ctx, func(tx *sql.Tx) error {
		for _, it := range items {
			doc, err := json.Marshal(it.Value)
			if err == nil {
				err = take(it.Kind, doc, emptyKit()) // what could not be read again is not stored
			}
			if err == nil {
				_, err = tx.ExecContext(ctx, `INSERT INTO items (kind, id, doc, position) SELECT ?, ?, ?, coalesce(max(position), 0) + 1 FROM items WHERE true
					ON CONFLICT (kind, id) DO UPDATE SET doc = excluded.doc`, it.Kind, it.ID, doc)
			}
			if err != nil {
				return fmt.Errorf("store %s %q: %w", it.Kind, it.ID, err)
			}
		}
		return nil
	})
}

// Doc is a kit item as it is stored.
func (s *Store) Doc(ctx context.Context, kind, id string) ([]byte, error) {
	var doc []byte
	if err := s.db.QueryRowContext(ctx, `SELECT doc FROM items WHERE kind = ? AND id = ?`, kind, id).Scan(&doc); err != nil {
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
