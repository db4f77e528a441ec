package overview

import (
	"bytes"
	"context"
	"encoding/json"

	"mezzadro/core/invalid"
	"mezzadro/exchange"
	"mezzadro/store"
)

// WeatherFile is a file of weather, and how it is meant.
type WeatherFile struct {
	Name       string
	Text       []byte
	Here       bool               // measured in the garden itself
	MonthFirst bool               // where a date can be read either way
	Match      *exchange.Matching // what its columns hold, told by hand; nil: as was told of such files, or as their names say
}

// toldMatching is what was told by hand of files with a header.
type toldMatching struct{ header, text string }

// TakeWeatherFile keeps the hours of a file; the windows of the property's orders follow. What was told of its columns
// is known of the next file like it.
func (h *Room) TakeWeatherFile(ctx context.Context, key store.Key, property int64, file WeatherFile) (WeatherKept, error) {
	pl, err := h.Place(ctx, property)
	if err != nil {
		return WeatherKept{}, err
	}
	known, err := h.Store.Matchings(ctx)
	if err != nil {
		return WeatherKept{}, err
	}
	clock := exchange.Clock{Zone: pl.Zone, MonthFirst: file.MonthFirst, Latitude: pl.Normals.Climate.Latitude, Longitude: pl.Normals.Climate.Longitude}
	told, err := file.told()
	if err != nil {
		return WeatherKept{}, err
	}
	clock.Match = func(header string) *exchange.Matching {
		if told != nil && header == told.header {
			return file.Match
		}
		var m exchange.Matching
		if text, ok := known[header]; !ok || json.Unmarshal([]byte(text), &m) != nil {
			return nil
		}
		return &m
	}
	hours, read, err := exchange.ReadWeather(bytes.NewReader(file.Text), clock)
	if err != nil {
		return WeatherKept{}, err
	}
	for i := range hours {
		hours[i].Here = file.Here
	}
	k, err := h.takeWeather(ctx, key, property, file.Name, hours, told)
	k.Read = read
	return k, err
}

// told is what is told of the columns of a file, to be kept; nil where nothing is.
func (f *WeatherFile) told() (*toldMatching, error) {
	if f.Match == nil {
		return nil, nil
	}
	asked, err := exchange.AskColumns(f.Text)
	if err != nil {
		return nil, err
	}
	if err := f.Match.Validate(len(asked.Names)); err != nil {
		return nil, err
	}
	text, err := json.Marshal(f.Match)
	return &toldMatching{asked.Header, string(text)}, err
}

// AskColumns tells what the columns of a file of weather may hold: as was told of such files, or as their names say.
func (h *Room) AskColumns(ctx context.Context, text []byte) (exchange.WeatherColumns, error) {
	out, err := exchange.AskColumns(text)
	if err != nil {
		return out, err
	}
	known, err := h.Store.Matchings(ctx)
	if err != nil {
		return out, err
	}
	if kept, ok := known[out.Header]; ok {
		if err := json.Unmarshal([]byte(kept), &out.Matching); err != nil {
			return out, invalid.One("file", nil, "what was told of such files cannot be read: "+err.Error())
		}
	}
	return out, nil
}
