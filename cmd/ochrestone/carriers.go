package main

import (
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"

	"ochrestone/core/depth"
)

// carriersFile is the name of the file of carriers' figures; it lies beside the data file
// and is a person's to edit.
const carriersFile = "carriers.json"

// carriersBeside reads the carriers' figures beside a data file. Where there is no such
// file it is written as it comes, so that a person finds it.
func carriersBeside(data string) ([]depth.Carrier, error) {
	path := filepath.Join(filepath.Dir(data), carriersFile)
	doc, err := os.ReadFile(path)
	if errors.Is(err, fs.ErrNotExist) {
		doc = depth.Published()
		if err := os.WriteFile(path, doc, 0o644); err != nil {
			return nil, fmt.Errorf("write %s: %w", path, err)
		}
	} else if err != nil {
		return nil, fmt.Errorf("read %s: %w", path, err)
	}
	out, err := depth.ReadCarriers(doc)
	if err != nil {
		return nil, fmt.Errorf("%s: %w; mend it, or delete it to have it as it came", path, err)
	}
	return out, nil
}
