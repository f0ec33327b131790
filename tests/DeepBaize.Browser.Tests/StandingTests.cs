using OpenQA.Selenium;

namespace DeepBaize.Browser.Tests;

/// <summary>
/// Answers stand still, belong to their question and are never lost, though the way to the server is slow, breaks off, or leads to a newer
/// build.
/// </summary>
[Collection("second desk")]
[BrowsersGoBack]
public class StandingTests(SecondDesk desk)
{
    [Fact]
    public async Task An_outcome_keeps_the_words_of_its_own_stroke_and_mends_itself_after_a_request_that_hung()
    {
        await using var way = await UnsteadyProxy.BeforeAsync(desk.Address);
        var page = desk.Open(address: way.Address);
        page.OpenPosition("Mid-break, open reds");
        page.Until(() => page.Text("outcome").Contains("pace"));
        var before = page.Text("outcome");
        string Pace() => page.Slider("pace").GetAttribute("aria-valuenow")!;
        var pace = Pace();
        way.Let((_, path) => path == "/api/shot" ? new Fault.Hangs() : null);
        page.Keys("-");
        page.Until(() => Pace() != pace);
        page.Until(() => page.Find("outcome").GetAttribute("class")!.Contains("stale"));
        Assert.Equal(before, page.Text("outcome"));
        page.Says("no-answer", "No answer yet");
        Assert.Equal(before, page.Text("outcome"));
        way.Calm();
        page.Until(() => page.Text("outcome") != before && page.Driver.FindElements(By.CssSelector("[data-testid=no-answer]")).Count == 0);
        Assert.DoesNotContain("stale", page.Find("outcome").GetAttribute("class"));
    }

    [Fact]
    public async Task What_a_search_has_found_is_there_at_once_after_another_step_a_reload_and_undo()
    {
        await using var way = await UnsteadyProxy.BeforeAsync(desk.Address);
        var page = desk.Open(address: way.Address);
        page.OpenPosition("Colours on their spots");
        page.Click(() => page.Find("plan-break"));
        page.Until(() => page.IsGone("stop-plan") && page.Driver.FindElements(By.CssSelector("[data-testid=plan-shot]")).Count > 0);
        var found = page.Text("strip");
        Assert.Equal(1, way.CountOf("POST /api/plan"));
        way.Let((_, path) => path is "/api/plan" or "/api/read" or "/api/decide" ? new Fault.Hangs() : null);
        page.Click(() => page.Find("what-happens"));
        page.Click(() => page.Find("plan-break"));
        Assert.Equal(found, page.Text("strip"));
        page.Driver.Navigate().Refresh();
        page.Find("plan");
        Assert.Equal(found, page.Text("strip"));
        Assert.Equal(1, way.CountOf("POST /api/plan"));
        // Another table has another answer; this one's is there again with it.
        page.Css("[data-ball=yellow]").Click();
        page.Keys(Keys.ArrowUp);
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=plan-shot]")).Count == 0);
        page.Find("stop-plan");
        page.Find("undo").Click();
        Assert.Equal(found, page.Text("strip"));
    }

    [Fact]
    public async Task A_line_that_is_chosen_stays_while_others_come_in_and_no_verdict_comes_before_all_is_weighed()
    {
        await using var way = await UnsteadyProxy.BeforeAsync(desk.Address);
        var page = desk.Open(address: way.Address);
        var letOn = new TaskCompletionSource();
        way.Let((_, path) => path == "/api/decide" ? new Fault.StandsStill(3, letOn.Task) : null);
        page.OpenPosition("Mid-break, open reds");
        page.Click(() => page.Find("decide"));
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=decide-item]")).Count > 0);
        page.Says("verdict", "No verdict yet");
        Assert.Contains("so far", page.Text("decide-panel"));
        string Chosen() => page.Css("[data-testid=decide-item].used button").Text;
        page.Click(() => page.Css("[data-testid=decide-item] button"));
        var chosen = Chosen();
        letOn.SetResult();
        page.Until(() => page.IsGone("stop-decide"));
        Assert.Equal(chosen, Chosen());
        page.Until(() => page.Text("verdict").Contains('%'));
        // Looking was no change.
        Assert.Empty(page.Driver.FindElements(By.CssSelector("[data-testid=unsaved]")));
        Assert.True(page.Find("save").Enabled);
    }

    [Fact]
    public async Task What_the_server_takes_later_is_sent_and_what_it_refuses_goes_into_a_new_session()
    {
        await using var way = await UnsteadyProxy.BeforeAsync(desk.Address);
        var page = desk.Open(390, 844, touch: true, address: way.Address);
        page.Visit("/practice/routines/thin-pots");
        page.Tap(() => page.Find("play-routine"));
        page.Says("sent", "all sent");
        way.Let((_, path) => path.EndsWith("/attempts", StringComparison.Ordinal) ? new Fault.Answers(500) : null);
        page.Tap(() => page.Find("done"));
        page.Says("sent", "1 not sent");
        page.Says("not-sent", "1 not sent");
        way.Calm();
        page.Says("sent", "all sent");

        way.Let((_, path) => path.EndsWith("/attempts", StringComparison.Ordinal) ? new Fault.Answers(404) : null);
        page.Tap(() => page.Find("done"));
        page.Tap(() => page.Find("not"));
        page.Says("refused", "2 not accepted");
        way.Calm();
        page.Tap(() => page.Find("refused"));
        page.Says("not-taken", "2 attempts");
        page.Tap(() => page.Find("into-new-session"));
        page.Find("attempt-bar");
        page.Says("sent", "all sent");
        page.Says("count", "1 of 2 in all");
        Assert.True(page.IsGone("refused"));
    }

    [Fact]
    public async Task A_frame_is_written_down_without_a_connection_and_its_score_follows()
    {
        await using var way = await UnsteadyProxy.BeforeAsync(desk.Address);
        var page = desk.Open(390, 844, touch: true, address: way.Address);
        page.Visit("/frames");
        page.Tap(() => page.Find("begin-frame"));
        page.Find("pot-red");
        way.Let((_, path) => path.StartsWith("/api/", StringComparison.Ordinal) || path == "/health" ? new Fault.BreaksOff() : null);
        page.Tap(() => page.Find("pot-red"));
        page.Tap(() => page.Find("pot-black"));
        page.Tap(() => page.Find("missed"));
        page.Tap(() => page.Css("[data-testid=why-thick]"));
        page.Says("unsent-shots", "red; black; missed; of the last");
        way.Calm();
        page.Until(() => page.IsGone("unsent-shots"));
        Assert.Equal("8", page.Text("score-0"));
        page.Says("frame-shots", "thick");
    }

    [Fact]
    public async Task A_link_whose_piece_is_gone_after_an_update_loads_the_new_page()
    {
        await using var way = await UnsteadyProxy.BeforeAsync(desk.Address);
        var page = desk.Open(address: way.Address);
        page.GoTo("/");
        var loads = way.CountOf("GET /table") + way.CountOf("GET /progress") + way.CountOf("GET /index.html");
        // An older build is open: its piece is not there any more, until the page has been loaded anew.
        way.Let(
            (_, path) =>
                path.StartsWith("/assets/ProgressPlace", StringComparison.Ordinal) && way.CountOf("GET /progress") == 0
                    ? new Fault.Answers(404)
                    : null
        );
        page.Click(() => page.Find("progress"));
        page.Find("progress-place");
        Assert.True(way.CountOf("GET /progress") > 0, "the page was not loaded anew");
        Assert.Equal("/progress", page.Path);
    }
}
