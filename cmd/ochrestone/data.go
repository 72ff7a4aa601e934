package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"os"
	"path/filepath"

	"ochrestone/core/card"
	"ochrestone/core/plan"
	"ochrestone/exchange/everything"
	"ochrestone/server"
	"ochrestone/store"
)

// dataFlags reads the flags of a command about the data file and the words after
// them, as many as wanted.
func dataFlags(name string, args []string, words ...string) (data string, rest []string, err error) {
	f := flag.NewFlagSet("ochrestone "+name, flag.ContinueOnError)
	f.StringVar(&data, "data", usualData(false), "data file")
	for len(args) > 0 { // flags may stand before or after the words
		if err := f.Parse(args); err != nil {
			return "", nil, err
		}
		if args = f.Args(); len(args) > 0 {
			rest, args = append(rest, args[0]), args[1:]
		}
	}
	if len(rest) != len(words) {
		use := "ochrestone " + name
		for _, w := range words {
			use += " " + w
		}
		return "", nil, fmt.Errorf("%d words after the command, %d wanted: %s [--data FILE]", len(rest), len(words), use)
	}
	return data, rest, nil
}

// runCheck reads a whole data file and says whether it is sound.
func runCheck(args []string) error {
	data, _, err := dataFlags("check", args)
	if err != nil {
		return err
	}
	r, err := store.CheckFile(context.Background(), data)
	if err != nil {
		return err
	}
	fmt.Println(r.Say())
	for _, p := range r.Problems {
		fmt.Println("damaged:", p)
	}
	for _, a := range r.Apart {
		fmt.Printf("cannot be read: %s %s (%s): %s\n", a.Kind, a.ID, a.Name, a.Why)
	}
	if r.Torn() || len(r.Apart) > 0 {
		return errSpoils
	}
	return nil
}

// runBackup copies a data file whole, whether a program has it open or not.
func runBackup(args []string) error {
	data, rest, err := dataFlags("backup", args, "FILE")
	if err != nil {
		return err
	}
	if err := store.BackupFile(context.Background(), data, rest[0]); err != nil {
		return err
	}
	fmt.Printf("Backed up %s to %s.\n", data, rest[0])
	return nil
}

// runRestore puts a backup in the place of a data file; what was there is kept.
func runRestore(args []string) error {
	data, rest, err := dataFlags("restore", args, "BACKUP")
	if err != nil {
		return err
	}
	ctx := context.Background()
	r, err := store.CheckFile(ctx, rest[0])
	if err != nil {
		return err
	}
	if r.Torn() {
		return fmt.Errorf("%s: %s Nothing was changed", rest[0], r.Say())
	}
	if err := os.MkdirAll(filepath.Dir(data), 0o755); err != nil {
		return fmt.Errorf("make the data folder: %w", err)
	}
	kept := ""
	st, err := store.Open(ctx, data)
	var trouble *store.Trouble
	if errors.As(err, &trouble) { // a damaged file is laid aside, whatever is left of it
		kept = data + ".damaged"
		for n := 2; ; n++ {
			if _, err := os.Stat(kept); errors.Is(err, os.ErrNotExist) {
				break
			}
			kept = fmt.Sprintf("%s.damaged-%d", data, n)
		}
		for _, end := range []string{"", "-wal", "-shm"} {
			if err := os.Rename(data+end, kept+end); err != nil && !errors.Is(err, os.ErrNotExist) {
				return fmt.Errorf("lay the damaged file aside: %w", err)
			}
		}
		st, err = store.Open(ctx, data)
	}
	if err != nil {
		return err
	}
	defer st.Close()
	before, err := st.Restore(ctx, rest[0])
	if err != nil {
		return err
	}
	fmt.Printf("Restored %s: %s\nWhat was there before is kept in %s.\n", data, r.Say(), before)
	if kept != "" {
		fmt.Printf("The damaged file was laid aside as %s.\n", kept)
	}
	return nil
}

// runExport writes everything as one zip of open formats.
func runExport(args []string) error {
	data, rest, err := dataFlags("export", args, "FILE.zip")
	if err != nil {
		return err
	}
	ctx := context.Background()
	if _, err := os.Stat(data); err != nil {
		return fmt.Errorf("read the data file: %w", err)
	}
	// A copy is read, so that a program that has the file open goes on.
	dir, err := os.MkdirTemp("", "ochrestone-export-*")
	if err != nil {
		return fmt.Errorf("make room for a copy: %w", err)
	}
	defer os.RemoveAll(dir)
	file := filepath.Join(dir, "copy.db")
	if err := store.BackupFile(ctx, data, file); err != nil {
		return err
	}
	st, err := store.Open(ctx, file)
	if err != nil {
		return err
	}
	defer st.Close()
	all, err := server.Everything(ctx, st)
	if err != nil {
		return err
	}
	f, err := os.OpenFile(rest[0], os.O_WRONLY|os.O_CREATE|os.O_EXCL, 0o644)
	if err != nil {
		return fmt.Errorf("write %s: %w", rest[0], err)
	}
	planner := plan.NewPlanner()
	err = everything.Write(f, all, func(c card.Card) plan.Plan { return planner.Of(c, all.Kit) })
	if err = errors.Join(err, f.Sync(), f.Close()); err != nil {
		return errors.Join(fmt.Errorf("write %s: %w", rest[0], err), os.Remove(rest[0]))
	}
	fmt.Printf("Wrote %d cards and %d sets with all the stores to %s.\n", len(all.Cards), len(all.Kit.Sets), rest[0])
	return nil
}
