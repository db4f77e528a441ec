package api

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
)

// doc is what is said of an operation in the description.
type doc struct {
	id, tag, summary, text string
	problems               []int // statuses of the problems it may answer with, beside 500
	max                    int64 // largest body taken, bytes; 0 for the usual
}

// Problems that operations share.
var (
	reads   = []int{http.StatusUnprocessableEntity}
	asks    = []int{http.StatusBadRequest, http.StatusNotFound, http.StatusUnprocessableEntity} // what has a body and keeps nothing
	readsOf = []int{http.StatusNotFound, http.StatusUnprocessableEntity}
	adds    = []int{http.StatusBadRequest, http.StatusNotFound, http.StatusConflict, http.StatusUnprocessableEntity}
	writes  = []int{http.StatusBadRequest, http.StatusNotFound, http.StatusConflict, http.StatusUnprocessableEntity}
	files   = []int{http.StatusBadRequest, http.StatusNotFound, http.StatusConflict, http.StatusRequestEntityTooLarge, http.StatusUnprocessableEntity}
)

// op registers an operation.
func op[I, O any](api huma.API, method, path string, d doc, f func(context.Context, *I) (*O, error)) {
	o := huma.Operation{OperationID: d.id, Method: method, Path: "/api/v1" + path, Summary: d.summary, Description: d.text, Tags: []string{d.tag},
		Errors: append(append([]int{}, d.problems...), http.StatusInternalServerError)}
	if d.max != 0 {
		o.MaxBodyBytes = d.max
	}
	huma.Register(api, o, f)
}

// routes are all operations, by what they are about.
func (s *Server) routes(api huma.API) {
	s.firmRoutes(api)
	s.groundsRoutes(api)
	s.weatherRoutes(api)
	s.speciesRoutes(api)
	s.walkRoutes(api)
	s.orderRoutes(api)
	s.causeRoutes(api)
	s.cutRoutes(api)
	s.storeRoutes(api)
	s.roundRoutes(api)
	s.siteRoutes(api)
	s.orderPhotoRoutes(api)
	s.reckonRoutes(api)
	s.accountRoutes(api)
}

const (
	get    = http.MethodGet
	post   = http.MethodPost
	put    = http.MethodPut
	remove = http.MethodDelete
)

func (s *Server) firmRoutes(a huma.API) {
	op(a, get, "/frame", doc{"frame", "Firm", "What every screen shows", "Today, the firm, and how much wants " +
		"attention in each place.", reads, 0}, s.frame)
	op(a, put, "/today", doc{"move-today", "Firm", "Move the sample's day", "Only the made-up sample's day can be " +
		"moved; its simulated weather is read up to there and every window follows.", writes, 0}, s.moveToday)
	op(a, get, "/firm", doc{"firm", "Firm", "The firm's settings", "Name, units, first day of the week and house " +
		"rules.", reads, 0}, s.firm)
	op(a, put, "/firm", doc{"change-firm", "Firm", "Change the firm's settings", "Texts are told in the new units " +
		"from then on; the windows of orders follow the house rules.", writes, 0}, s.changeFirm)
	op(a, get, "/lookout", doc{"lookout", "Firm", "What weather and season ask now", "Events, the look-list by " +
		"property, tender plants, follow-ups, overdue jobs and windows that close, over all properties.", reads, 0}, s.lookout)
	op(a, get, "/find", doc{"find", "Firm", "Find a plant, property, species, cause or job", "All words given have to be " +
		"there. Up to limit of each kind; more says that there are others.", reads, 0}, s.find)
}

func (s *Server) groundsRoutes(a huma.API) {
	op(a, get, "/climates", doc{"climates", "Grounds", "Climate types to start from", "The whole list, with the " +
		"hardiness zone of each.", reads, 0}, s.climates)
	op(a, get, "/properties", doc{"properties", "Grounds", "Properties", "A page, in the order they were added.", reads, 0}, s.properties)
	op(a, post, "/properties", doc{"add-property", "Grounds", "Add a property", "With a climate type moved to the " +
		"place's height, or with its own normals.", adds, 0}, s.addProperty)
	op(a, get, "/properties/{id}", doc{"property", "Grounds", "One property", "With its climate, in the open " +
		"country and on its site.", readsOf, 0}, s.property)
	op(a, put, "/properties/{id}", doc{"change-property", "Grounds", "Change a property", "All its fields, based " +
		"on a version.", writes, 0}, s.changeProperty)
	op(a, remove, "/properties/{id}", doc{"remove-property", "Grounds", "Remove a property", "It goes out of " +
		"sight with its plants and jobs, and can be restored.", writes, 0}, s.removeProperty)
	op(a, post, "/properties/{id}/restore", doc{"restore-property", "Grounds", "Bring a removed property back", "With its plants and jobs as they were.", writes, 0}, s.restoreProperty)
	op(a, get, "/properties/{id}/plants.csv", doc{"give-plants", "Grounds", "A property's plants as a CSV file", "Reads back to the same: see the formats page.", readsOf, 0}, s.givePlants)
	op(a, post, "/properties/{id}/plants", doc{"take-plants", "Grounds", "Take plants from a CSV file", "All of them, or with a fault anywhere none; faults are named by line.", files, maxCSV}, s.takePlants)
	op(a, get, "/properties/{id}/normals.csv", doc{"give-normals", "Grounds", "A property's monthly normals as a " +
		"CSV file", "Of the open country at its height.", readsOf, 0}, s.giveNormals)
	op(a, get, "/properties/{id}/labels.pdf", doc{"labels", "Grounds", "Labels to print", "One for each plant, in " +
		"the order of the way round, with a code that opens its page.", readsOf, 0}, s.labels)
	op(a, get, "/plants", doc{"plants", "Grounds", "Plants", "A page, with what weather and season ask of each.", reads, 0}, s.plants)
	op(a, post, "/plants", doc{"add-plant", "Grounds", "Add a plant or a group", "Species and height are needed; " +
		"the rest is taken as usual.", adds, 0}, s.addPlant)
	op(a, get, "/plants/{id}", doc{"plant", "Grounds", "One plant", "With what weather and season ask of it.", readsOf, 0}, s.plant)
	op(a, put, "/plants/{id}", doc{"change-plant", "Grounds", "Change a plant", "All its fields, based on a " +
		"version.", writes, 0}, s.changePlant)
	op(a, remove, "/plants/{id}", doc{"remove-plant", "Grounds", "Remove a plant", "It goes out of sight with its " +
		"jobs, and can be restored.", writes, 0}, s.removePlant)
	op(a, post, "/plants/{id}/restore", doc{"restore-plant", "Grounds", "Bring a removed plant back", "With its jobs as they were.", writes, 0}, s.restorePlant)
	op(a, get, "/plants/{id}/story", doc{"story", "Grounds", "All that is known of a plant", "Now and foretold, " +
		"walks and verdicts, photos, jobs, how it turned out.", readsOf, 0}, s.story)
	op(a, post, "/plants/{id}/outcomes", doc{"add-outcome", "Grounds", "Note how a plant turned out", "Held against the prognosis of one of its verdicts.", writes, 0}, s.addOutcome)
	op(a, remove, "/outcomes/{id}", doc{"undo-outcome", "Grounds", "Take an outcome back", "It no longer counts.", writes, 0}, s.undoOutcome)
}

func (s *Server) weatherRoutes(a huma.API) {
	op(a, get, "/properties/{id}/season", doc{"season", "Weather", "The garden year of a property", "Normals, what was observed, frost to come, events.", readsOf, 0}, s.season)
	op(a, get, "/properties/{id}/event", doc{"event", "Weather", "One event hour by hour", "Against what plants " +
		"there bore that day.", readsOf, 0}, s.eventChart)
	op(a, get, "/properties/{id}/weather.csv", doc{"give-weather", "Weather", "A property's hourly weather as a " +
		"CSV file", "What matters today of it.", readsOf, 0}, s.giveWeather)
	op(a, post, "/properties/{id}/weather/read", doc{"read-weather", "Weather", "Read the weather station", "What is not kept yet, through last night; nothing is worked out anew where nothing is new.", writes, 0}, s.readWeather)
	op(a, post, "/properties/{id}/weather", doc{"take-weather", "Weather", "Take hourly weather from a CSV file", "All of it, or with a fault anywhere none; faults are named by line.", files, maxCSV}, s.weatherCSV)
}

func (s *Server) speciesRoutes(a huma.API) {
	op(a, get, "/species", doc{"species-list", "Almanac", "The whole book of species", "Built-in entries with the " +
		"firm's own and corrected ones.", reads, 0}, s.speciesList)
	op(a, get, "/species.yaml", doc{"give-pack", "Almanac", "Species entries as a YAML pack", "The firm's own and " +
		"corrected ones, or all.", reads, 0}, s.givePack)
	op(a, post, "/species", doc{"take-pack", "Almanac", "Take species entries from a YAML pack", "All of them, or " +
		"with a fault anywhere none.", files, maxCSV}, s.takePack)
	op(a, get, "/species/{id}", doc{"species", "Almanac", "One species entry", "With what the firm changed of " +
		"it.", readsOf, 0}, s.species)
	op(a, put, "/species/{id}", doc{"keep-species", "Almanac", "Write or correct a species entry", "The built entry stays beside a corrected one.", writes, 0}, s.keepSpecies)
	op(a, remove, "/species/{id}", doc{"drop-species", "Almanac", "Take the firm's entry out", "A corrected one " +
		"is as built again; an own one is gone, unless plants are of it.", writes, 0}, s.dropSpecies)
	op(a, get, "/species/{id}/year", doc{"species-year", "Almanac", "An entry's dates at a property", "Leaf, bloom, bud set and patience date in this year's weather, and what it bears now.", readsOf, 0}, s.speciesYear)
}

func (s *Server) walkRoutes(a huma.API) {
	op(a, post, "/walks", doc{"start-walk", "Walk", "Start a property's walk of a day", "There is one a day; " +
		"starting it twice gives the same.", adds, 0}, s.startWalk)
	op(a, get, "/walks/{id}", doc{"walk", "Walk", "One walk", "With what was found so far.", readsOf, 0}, s.walk)
	op(a, put, "/walks/{id}/plants/{plant}/checks", doc{"keep-look", "Walk", "Keep what was found at a plant", "All checks and the note; answered with the verdict they form. Where another device has written meanwhile, 409 with what it wrote.", writes, 0}, s.keepLook)
	op(a, get, "/walks/{id}/plants/{plant}/verdict", doc{"tell-look", "Walk", "The verdict on what was found at a " +
		"plant", "Judged today, by the day it was found on.", readsOf, 0}, s.tellLook)
	op(a, post, "/walks/{id}/plants/{plant}/verdict", doc{"decide", "Walk", "Accept, overrule or put off a " +
		"verdict", "The work it asks for becomes jobs; those of earlier verdicts on the same trouble go.", writes, 0}, s.decide)
	op(a, post, "/walks/{id}/plants/{plant}/photos", doc{"add-photo", "Walk", "Keep a picture taken at a plant", "JPEG, PNG, WebP or GIF; it is kept without any note of where or when, unless that is given.", files, -1}, s.addPhoto)
	op(a, get, "/pictures/{hash}", doc{"picture", "Walk", "A picture", "As JPEG.", readsOf, 0}, s.picture)
	op(a, remove, "/photos/{id}", doc{"remove-photo", "Walk", "Remove a photo", "It goes out of sight and can be " +
		"restored.", writes, 0}, s.removePhoto)
	op(a, post, "/photos/{id}/restore", doc{"restore-photo", "Walk", "Bring a removed photo back", "As it was.", writes, 0}, s.restorePhoto)
	op(a, remove, "/verdicts/{id}", doc{"undo-verdict", "Walk", "Take a plant's latest decision back", "Its jobs go, those it had dropped return.", writes, 0}, s.undoVerdict)
}

func (s *Server) orderRoutes(a huma.API) {
	op(a, get, "/year", doc{"year", "Work", "Jobs with what each day costs", "Still to be done, the next best day " +
		"first; a page.", reads, 0}, s.year)
	op(a, get, "/orders", doc{"orders", "Work", "A list of jobs", "A page of one of the lists, read from what was " +
		"worked out when the season last moved.", reads, 0}, s.orders)
	op(a, post, "/orders", doc{"add-order", "Work", "Enter a job by hand", "With what its days cost, or as a kind " +
		"of work whose days follow the season.", adds, 0}, s.addOrder)
	op(a, get, "/orders/{id}", doc{"order", "Work", "One job", "With its costs, their reasons, kit, cautions, and " +
		"the jobs before and after it.", readsOf, 0}, s.order)
	op(a, put, "/orders/{id}", doc{"change-order", "Work", "Change a job that was entered by hand", "Jobs of other origins change with what asked for them.", writes, 0}, s.changeOrder)
	op(a, put, "/orders/{id}/day", doc{"put-order", "Work", "Put a job on a day, or take it off", "Answered with " +
		"what that day costs and which gaps to other jobs it breaks.", writes, 0}, s.putOrder)
	op(a, put, "/orders/{id}/state", doc{"tick-order", "Work", "Tick a job off, skip it, or take that back", "Of a repeat the next time is asked for.", writes, 0}, s.tickOrder)
	op(a, post, "/orders/{id}/next-year", doc{"next-year", "Work", "Give a job the coming year's window", "For one whose time has passed.", writes, 0}, s.nextYear)
	op(a, remove, "/orders/{id}", doc{"drop-order", "Work", "Drop a job", "It can be restored.", writes, 0}, s.dropOrder)
	op(a, post, "/orders/{id}/restore", doc{"restore-order", "Work", "Bring a dropped job back", "As it was.", writes, 0}, s.restoreOrder)
	op(a, get, "/rounds", doc{"rounds", "Work", "A stretch of days", "Who goes where, what is overdue, and what " +
		"is still without a day.", reads, 0}, s.rounds)
	op(a, get, "/rounds.ics", doc{"calendar", "Work", "The work of some days as a calendar file", "iCalendar, in " +
		"the order of the visit.", readsOf, 0}, s.calendar)
}

func (s *Server) causeRoutes(a huma.API) {
	op(a, get, "/signs", doc{"signs", "Causes", "What can be seen on a plant", "All signs by part, with the " +
		"question a client is asked.", reads, 0}, s.signs)
	op(a, get, "/causes", doc{"causes", "Causes", "What may be wrong with a plant", "All causes of the book, with " +
		"how many open finds the firm has of each.", reads, 0}, s.causes)
	op(a, get, "/causes/{id}", doc{"cause", "Causes", "One cause", "Its look-alikes with the signs that part them, its " +
		"year at a property, and the firm's plants that take it.", readsOf, 0}, s.cause)
	op(a, get, "/properties/{id}/known", doc{"known-here", "Causes", "What the record knows of a property's plants", "Signs that weather, " +
		"place and work answer by themselves, and finds nearby: what a device takes along to name causes without a connection.", readsOf, 0}, s.knownHere)
	op(a, get, "/finds", doc{"finds", "Causes", "Finds", "A page, the oldest first.", reads, 0}, s.finds)
	op(a, post, "/finds", doc{"add-find", "Causes", "Keep a find", "A cause that was found on a plant, or somewhere on " +
		"a property.", adds, 0}, s.addFind)
	op(a, put, "/finds/{id}", doc{"change-find", "Causes", "Correct, close or reopen a find", "All its fields, based on " +
		"a version.", writes, 0}, s.changeFind)
	op(a, remove, "/finds/{id}", doc{"remove-find", "Causes", "Remove a find", "It goes out of sight, and can be " +
		"restored.", writes, 0}, s.removeFind)
	op(a, post, "/finds/{id}/restore", doc{"restore-find", "Causes", "Bring a removed find back", "As it was.", writes, 0}, s.restoreFind)
	op(a, post, "/finds/{id}/look", doc{"look-for", "Causes", "Ask for a look at all that may have it", "One job for a " +
		"property, with the plants of the spread watch, the clean ones first.", writes, 0}, s.lookFor)
	op(a, get, "/watch", doc{"spread-watch", "Causes", "What to look at because of what was found", "By cause and " +
		"property, clean properties first. A plant that was looked at since is off the list.", reads, 0}, s.spreadWatch)
	op(a, get, "/call-sheet", doc{"call-sheet", "Causes", "What to ask a client who calls", "In order, with what each " +
		"answer says.", reads, 0}, s.callSheet)
	op(a, get, "/calls", doc{"calls", "Causes", "A property's calls", "The newest first.", readsOf, 0}, s.calls)
	op(a, post, "/calls", doc{"add-call", "Causes", "Keep a call", "What was asked and said; one that ends in a visit " +
		"makes its job in the same write.", adds, 0}, s.addCall)
	op(a, put, "/calls/{id}", doc{"change-call", "Causes", "Change a call", "All its fields, based on a version.", writes, 0}, s.changeCall)
	op(a, remove, "/calls/{id}", doc{"remove-call", "Causes", "Remove a call", "It goes out of sight, and can be " +
		"restored.", writes, 0}, s.removeCall)
	op(a, post, "/calls/{id}/restore", doc{"restore-call", "Causes", "Bring a removed call back", "As it was.", writes, 0}, s.restoreCall)
}

func (s *Server) cutRoutes(a huma.API) {
	op(a, get, "/properties/{id}/cuts", doc{"propose-cuts", "Work", "A property's year of cuts", "Proposed for each plant by its kind and the house " +
		"rules, with totals; those that stand as jobs already are told.", readsOf, 0}, s.proposeCuts)
	op(a, post, "/properties/{id}/cuts", doc{"keep-cuts", "Work", "Make jobs of proposed cuts", "Of some plants, all in one write; their windows follow " +
		"the season.", writes, 0}, s.keepCuts)
}

func (s *Server) reckonRoutes(a huma.API) {
	op(a, post, "/reckon/season", doc{"reckon-season", "Reckon", "Where a climate stands in its year", "From an inline climate or a property; nothing is stored.", asks, 0}, s.reckonSeason)
	op(a, post, "/reckon/freeze", doc{"reckon-freeze", "Reckon", "What weather did to plants", "From inline " +
		"values; nothing is stored.", asks, maxCSV}, s.reckonFreeze)
	op(a, post, "/reckon/damage", doc{"reckon-damage", "Reckon", "The verdict on a plant", "From inline values; " +
		"nothing is stored.", asks, 0}, s.reckonDamage)
	op(a, post, "/reckon/cause", doc{"reckon-cause", "Reckon", "What may be wrong with a plant", "By the signs " +
		"that were seen, and those that were looked for and are not there: causes with their chances and what " +
		"speaks for each, and the question that parts them best. Nothing is stored.", asks, 0}, s.reckonCause)
	op(a, post, "/reckon/pruning", doc{"reckon-pruning", "Reckon", "When and how far a plant is cut", "Windows of the garden year with the cost of " +
		"each day, what a cut on the date takes of the bloom, the height to cut to, the years it is spread over, and the work. Nothing is stored.", asks, 0}, s.reckonPruning)
	op(a, post, "/reckon/normals", doc{"reckon-normals", "Reckon", "Read monthly normals from a CSV file", "Nothing is stored.", files, 1 << 16}, s.reckonNormals)
}
