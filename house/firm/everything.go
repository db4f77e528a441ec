package firm

import (
	"archive/zip"
	"bytes"
	"context"
	"fmt"
	"io"
	"time"

	"mezzadro/core/catalogue"
	"mezzadro/core/quantity"
	"mezzadro/exchange"
	"mezzadro/store"
)

// everythingSays is told to those who open the zip.
const everythingSays = `This is a whole record in open formats.

tables/      all tables as CSV, UTF-8, one row a line; \N stands for what is not there,
             and a text that begins with a backslash is quoted after one
photos/      pictures, by the hash they stand under in the tables
properties/  the same once more for other programs: plants, normals and weather as CSV, plans as GeoJSON
jobs.ics     jobs of a year before and after, as iCalendar
species.yaml the firm's own and corrected kinds

Who may sign in is not in it. "mezzadro import FILE --data FOLDER" fills an empty folder from tables/ and photos/.
`

// GiveEverything writes the whole record in open formats as a zip.
func (h *Room) GiveEverything(ctx context.Context, w io.Writer, style quantity.Style) error {
	z := zip.NewWriter(w)
	put := func(name string, b []byte, err error) error {
		if err != nil {
			return fmt.Errorf("%s: %w", name, err)
		}
		to, err := z.Create(name)
		if err == nil {
			_, err = to.Write(b)
		}
		return err
	}
	if err := put("README.txt", []byte(everythingSays), nil); err != nil {
		return err
	}
	if _, err := h.Store.GiveEverything(ctx, time.Now(), z); err != nil {
		return err
	}
	own, err := h.Pack(ctx, false)
	if err != nil {
		return err
	}
	if len(own) > 0 {
		pack, err := catalogue.WritePack(own)
		if err := put("species.yaml", pack, err); err != nil {
			return err
		}
	}
	today := h.Today()
	calendar, err := h.Days.Calendar(ctx, today-365, today+365, 0, style)
	if err := put("jobs.ics", []byte(calendar), err); err != nil {
		return err
	}
	props, err := h.Store.Properties(ctx, 0, store.All)
	if err != nil {
		return err
	}
	for _, p := range props {
		if err := h.givePlace(ctx, p.ID, fmt.Sprintf("properties/%d/", p.ID), put); err != nil {
			return err
		}
	}
	return z.Close()
}

// givePlace writes what other programs read of a property.
func (h *Room) givePlace(ctx context.Context, property int64, folder string, put func(string, []byte, error) error) error {
	p, err := h.Store.Property(ctx, property)
	if err != nil {
		return err
	}
	c := p.Climate.V
	write := func(name string, f func(io.Writer) error) error {
		var b bytes.Buffer
		err := f(&b)
		return put(folder+name, b.Bytes(), err)
	}
	lines, err := h.Garden.PlantLines(ctx, property)
	if err == nil {
		err = write("plants.csv", func(w io.Writer) error { return exchange.WritePlantsCSV(w, lines) })
	}
	if err == nil {
		err = write("normals.csv", func(w io.Writer) error { return exchange.WriteNormalsCSV(w, c.Normals[:]) })
	}
	if err != nil {
		return err
	}
	_, hours, err := h.Hours(ctx, property)
	if err == nil {
		err = write("weather.csv", func(w io.Writer) error { return exchange.WriteWeatherCSV(w, hours) })
	}
	if err != nil {
		return err
	}
	plan, err := h.Ground.PlanOf(ctx, property)
	if err == nil && len(plan.Plan.Things) > 0 {
		err = write("plan.geojson", func(w io.Writer) error { return exchange.WritePlanGeoJSON(w, plan.Plan, c.Latitude, c.Longitude) })
	}
	return err
}
