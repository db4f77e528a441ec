package main

import (
	"errors"
	"fmt"
	"os"
	"slices"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"mezzadro/store"
)

func backupCommand() *cobra.Command {
	var data, secret string
	c := &cobra.Command{
		Use:   "backup FILE",
		Short: "Write the whole record with its pictures to one file, also while it is being served",
		Long: "Writes a .tar.zst that begins with a manifest of what is in it. A copy of mezzadro.db alone is no backup: what was written last may stand " +
			"beside it in another file.",
		Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			passphrase, err := store.PassphraseOf(secret)
			if err != nil {
				return err
			}
			m, err := store.BackupTo(c.Context(), data, time.Now(), args[0], passphrase)
			if err != nil {
				return err
			}
			_, err = fmt.Fprintf(c.OutOrStdout(), "%s: %s\n", args[0], told(m))
			return err
		},
	}
	c.Flags().StringVar(&data, "data", "data", "folder that holds the record")
	c.Flags().StringVar(&secret, "passphrase-file", "", passphraseHelp)
	return c
}

// passphraseHelp is said of the option wherever it stands.
const passphraseHelp = "file whose first line seals backups (age format): a copy elsewhere tells nothing without it, and is lost with it"

func told(m store.Manifest) string {
	return fmt.Sprintf("%d properties, %d plants, %d jobs, %d pictures and other files",
		m.Counts["property"], m.Counts["plant"], m.Counts["job_order"], len(m.Files)-1)
}

func restoreCommand() *cobra.Command {
	var data, secret string
	var replace bool
	var how store.How
	c := &cobra.Command{
		Use:   "restore FILE",
		Short: "Put a backup into an empty folder, or in place of a record that stays beside it; all of it is checked first",
		Args:  cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			if !slices.Contains([]string{"", store.WhoToday, store.WhoBackup}, how.Who) {
				return fmt.Errorf("--who %s: want %s or %s", how.Who, store.WhoToday, store.WhoBackup)
			}
			var err error
			if how.Passphrase, err = store.PassphraseOf(secret); err != nil {
				return err
			}
			f, err := os.Open(args[0])
			if err != nil {
				return err
			}
			defer f.Close()
			var m store.Manifest
			if replace {
				var aside string
				if m, aside, err = store.Replace(c.Context(), f, data, time.Now(), how); err == nil {
					_, err = fmt.Fprintf(c.OutOrStdout(), "the record before stays in %s\n", aside)
				}
			} else {
				m, err = store.Restore(c.Context(), f, data, how)
			}
			if err == nil {
				_, err = fmt.Fprintf(c.OutOrStdout(), "%s: %s, as of %s\n", data, told(m), m.Made.Format(time.RFC1123))
			}
			if err == nil {
				err = tellWho(c, data)
			}
			return err
		},
	}
	c.Flags().StringVar(&data, "data", "data", "folder that is to hold the record")
	c.Flags().BoolVar(&how.Despite, store.Despite[2:], false, "take a record that is whole, though it holds what entry would refuse")
	c.Flags().StringVar(&secret, "passphrase-file", "", "file whose first line opens a sealed backup")
	c.Flags().StringVar(&how.Who, "who", "", "who may sign in after it where that differs: today, or backup")
	c.Flags().BoolVar(&replace, "replace", false, "where the folder holds a record: put it aside, under its name with the time")
	return c
}

// tellWho tells who a restored record lets in.
func tellWho(c *cobra.Command, data string) error {
	names, links, err := store.MaySignIn(c.Context(), data, time.Now())
	if err != nil || len(names) == 0 && links == 0 {
		return err
	}
	_, err = fmt.Fprintf(c.OutOrStdout(), "may sign in: %s; %d clients' links are open\n", strings.Join(names, ", "), links)
	return err
}

func checkCommand() *cobra.Command {
	var data string
	c := &cobra.Command{
		Use:   "check",
		Short: "Look through a record: the file itself, what hangs on what, each picture against its name",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			if _, err := os.Stat(data); err != nil {
				return err
			}
			faults, err := store.Check(c.Context(), data)
			if err == nil && len(faults) > 0 {
				err = errors.New(strings.Join(faults, "\n"))
			}
			if err == nil {
				_, err = fmt.Fprintln(c.OutOrStdout(), "The record is whole.")
			}
			return err
		},
	}
	c.Flags().StringVar(&data, "data", "data", "folder that holds the record")
	return c
}
