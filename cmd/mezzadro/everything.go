package main

import (
	"archive/zip"
	"errors"
	"fmt"
	"os"
	"path/filepath"

	"github.com/spf13/cobra"

	"mezzadro/core/quantity"
	"mezzadro/store"
)

func exportCommand() *cobra.Command {
	var o options
	c := &cobra.Command{
		Use:   "export FILE",
		Short: "Write the whole record in open formats to a zip: CSV, GeoJSON, YAML, iCalendar and pictures",
		Long:  "While the record is being served, Settings gives the same zip.",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			s, err := o.open(c.Context(), nil)
			if err != nil {
				return err
			}
			defer s.Close()
			part := args[0] + ".part"
			f, err := os.OpenFile(part, os.O_WRONLY|os.O_CREATE|os.O_TRUNC, 0o600)
			if err != nil {
				return err
			}
			err = s.Firm.GiveEverything(c.Context(), f, quantity.Metric)
			if err = errors.Join(err, f.Sync(), f.Close()); err == nil {
				err = os.Rename(part, args[0])
			}
			if err != nil {
				return errors.Join(err, os.Remove(part))
			}
			return nil
		},
	}
	c.Flags().StringVar(&o.data, "data", "data", "folder that holds the record")
	c.Flags().StringVar(&o.today, "today", "", "take this day (YYYY-MM-DD) for today")
	return c
}

func importCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use:   "import FILE",
		Short: "Fill an empty folder from such a zip: all of it, or nothing",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			z, err := zip.OpenReader(args[0])
			if err != nil {
				return fmt.Errorf("%s: %w", args[0], err)
			}
			defer z.Close()
			if list, err := os.ReadDir(data); err == nil && len(list) > 0 {
				return fmt.Errorf("%s is not empty: give another folder, or move what is there away", data)
			} else if err != nil && !errors.Is(err, os.ErrNotExist) {
				return err
			}
			head, err := fill(c, &z.Reader, data)
			if err != nil { // nothing half is left
				return errors.Join(err, os.RemoveAll(filepath.Clean(data)))
			}
			_, err = fmt.Fprintf(c.OutOrStdout(), "%s: %d properties, %d plants, %d jobs\n", data,
				head.Rows["property"], head.Rows["plant"], head.Rows["job_order"])
			return err
		},
	}
	c.Flags().StringVar(&data, "data", "data", "empty folder that is to hold the record")
	return c
}

func fill(c *cobra.Command, z *zip.Reader, data string) (head store.Everything, err error) {
	st, err := store.Open(c.Context(), data)
	if err != nil {
		return head, err
	}
	head, err = st.TakeEverything(c.Context(), z)
	return head, errors.Join(err, st.Close())
}
