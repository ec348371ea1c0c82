package web

import (
	"net/http"

	"github.com/labstack/echo/v5"
)

// routes returns all addresses; a test walks them in every role.
func (s *server) routes() []route {
	get, post := http.MethodGet, http.MethodPost
	all := []route{
		{get, "/assets/*", anybody, assets},
		{get, "/worker.js", anybody, worker},
		{get, "/signin", anybody, s.signInPage},
		{post, "/signin", anybody, s.signIn},
		{get, "/first", anybody, s.firstPage},
		{post, "/first", anybody, s.first},
		{get, "/join/:secret", anybody, s.joinPage},
		{post, "/join/:secret", anybody, s.join},
		{get, "/calendar/:secret", anybody, s.feed},
		{post, "/signout", see, s.signOut},
		{get, "/me", see, s.me},
		{post, "/me/password", see, s.changePassword},
		{post, "/me/everywhere", see, s.signOutEverywhere},
		{post, "/me/calendar", see, s.newCalendar},
		{get, "/authority.crt", see, s.authority},
		{get, "/people", own, s.listPeople},
		{post, "/people/invite", own, s.invite},
		{post, "/people/:id/role", own, s.setRole},
		{post, "/people/:id/everywhere", own, s.endSessions},
		{post, "/people/:id/dismiss", own, s.dismiss},
		{post, "/people/:id/end", own, s.endInvitation},

		{get, "/", see, s.on(s.morning)},
		{get, "/go", see, s.on(s.jump)},
		{get, "/why/:crop", see, s.on(s.why)},
		{get, "/ladders", see, s.on(s.ladders)},
		{get, "/rounds", see, s.on(s.rounds)},
		{post, "/rounds", record, s.setJobs},
		{get, "/count", record, s.on(s.walk)},
		{get, "/token", see, s.token},
		{post, fieldPath, record, s.addField},
		{get, "/plantings", see, s.on(s.plantings)},
		{get, "/plantings/:planting", see, s.on(s.planting)},
		{get, "/stakes", see, s.on(s.stakes)},
		{post, "/withdraw", record, s.withdraw},
		{post, "/undo", record, s.undo},
		{get, "/orders", see, s.on(s.orders)},
		{get, "/orders/:order", see, s.onOrder(s.order)},
		{get, "/season", see, s.on(s.season)},
		{get, "/season/successions", see, s.on(s.successions)},
		{get, "/season/date", see, s.on(s.forDate)},
		{get, "/beds", see, s.on(s.beds)},
		{get, "/seeds", see, s.on(s.seeds)},
		{get, "/labels", see, s.on(s.labels)},
		{get, "/crops", see, s.on(s.crops)},
		{get, "/crops/:crop", see, s.on(s.cropCard)},

		{get, "/plantings/new", own, s.on(s.newPlanting)},
		{post, "/plantings", own, s.on(s.addPlanting)},
		{get, "/plantings/:planting/edit", own, s.onPlanting(s.editPlanting)},
		{post, "/plantings/:planting", own, s.onPlanting(s.correctPlanting)},
		{get, "/orders/new", own, s.on(s.newOrder)},
		{post, "/orders", own, s.on(s.addOrder)},
		{get, "/orders/:order/edit", own, s.onOrder(s.editOrder)},
		{post, "/orders/:order", own, s.onOrder(s.correctOrder)},
		{post, "/orders/:order/lines", own, s.onOrder(s.setLine)},
		{post, "/season/move", own, s.on(s.keepMove)},
		{post, "/season/successions", own, s.on(s.takeOver)},
		{post, "/season/successions/back", own, s.on(s.takeBack)},
		{post, "/beds", own, s.on(s.keepBed)},
		{get, "/beds/new", own, s.on(s.newBed)},
		{post, "/beds/place", own, s.on(s.placeInBeds)},
		{get, "/beds/:bed/edit", own, s.on(s.editBed)},
		{post, "/beds/:bed", own, s.on(s.keepBed)},
		{post, "/trays", own, s.on(s.addTray)},
		{get, "/varieties/new", own, s.on(s.newVariety)},
		{post, "/varieties", own, s.on(s.keepVariety)},
		{get, "/varieties/:variety/edit", own, s.on(s.editVariety)},
		{post, "/varieties/:variety", own, s.on(s.keepVariety)},
		{get, "/crops/new", own, s.on(s.newCrop)},
		{post, "/crops", own, s.on(s.keepCrop)},
		{post, "/crops/:crop", own, s.on(s.keepCrop)},
		{get, "/crops/:crop/edit", own, s.on(s.editCrop)},
		{post, "/crops/:crop/school", own, s.on(s.chooseSchool)},
		{post, "/crops/:crop/drop", own, s.on(s.dropCrop)},
		{get, "/start", own, s.on(s.start)},
		{post, "/start/beds", own, s.on(s.startBeds)},
		{post, "/start/crops", own, s.on(s.startCrops)},
		{post, "/start/market", own, s.on(s.startMarket)},
		{get, "/box", own, s.on(s.boxPage)},
		{post, "/box/weather", own, s.on(s.loadWeather)},
		{get, "/farm", own, s.settings},
		{post, "/farm", own, s.setSettings},
	}
	for _, f := range s.rowForms() {
		all = append(all, s.rowRoutes(f)...)
	}
	all = append(all, s.exports()...)
	if s.step != nil {
		all = append(all, route{post, "/demo/step", record, s.stepDemo})
	}
	return append(all, route{get, "/*", see, func(*echo.Context) error { return echo.ErrNotFound }})
}
