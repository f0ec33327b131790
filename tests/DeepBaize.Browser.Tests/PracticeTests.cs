using System.Text.RegularExpressions;
using System.Net.Http.Json;
using System.Text.Json;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace DeepBaize.Browser.Tests;

/// <summary>Practice at the table: by the thumb, with and without a network, and with a coach who looks on.</summary>
[Collection("second desk")]
[BrowsersGoBack]
public class PracticeTests(SecondDesk desk)
{
    private static void SetNetwork(Page page, bool isThere) =>
        page.Driver.ExecuteCdpCommand(
            "Network.emulateNetworkConditions",
            new()
            {
                ["offline"] = !isThere,
                ["latency"] = 0,
                ["downloadThroughput"] = -1,
                ["uploadThroughput"] = -1,
            }
        );

    private async Task<JsonElement> State(Page page)
    {
        using var client = new HttpClient();
        var id = page.Path.Split('/')[^1];
        return await client.GetFromJsonAsync<JsonElement>($"{desk.Address}/api/practice/sessions/{id}");
    }

    private async Task<string[]> Kept(Page page) =>
        [
            .. (await State(page))
                .GetProperty("attempts")
                .EnumerateArray()
                .Where(a => !a.GetProperty("withdrawn").GetBoolean())
                .Select(a =>
                    (a.GetProperty("done").GetBoolean() ? "done" : "not")
                    + string.Concat(a.GetProperty("reasons").EnumerateArray().Select(r => " " + r.GetString()))
                ),
        ];

    private static void Begin(Page page, string routine)
    {
        page.Visit("/practice");
        page.Tap(() => page.Find($"routine-{routine}"));
        page.Tap(() => page.Find("play-routine"));
        try
        {
            page.Find("attempt-bar");
        }
        catch (WebDriverTimeoutException)
        {
            Assert.Fail($"no session has begun at {page.Path}: {page.Css("body").Text}");
        }
    }

    private static int Counted(Page page) => page.Driver.FindElements(By.CssSelector("[data-testid=attempts] li")).Count;

    /// <summary>Presses, and waits until it is on the screen.</summary>
    private static void Press(Page page, string button)
    {
        var before = Counted(page);
        page.Tap(() => page.Find(button));
        page.Until(() => Counted(page) == before + 1);
    }

    [Fact]
    public async Task By_touch_from_the_routine_to_the_chart_with_network_and_server_cut_in_between_and_the_tab_closed()
    {
        var page = desk.Open(390, 844, touch: true);
        Begin(page, "long-pots");
        page.Until(() => page.Text("sent") == "all sent");
        page.Driver.ExecuteCdpCommand("Network.enable", []);

        // Rounds: each attempt goes on to the next step, so that the first of each is looked for again.
        Press(page, "done");
        page.Until(() => page.Text("sent") == "all sent");

        SetNetwork(page, false);
        page.Tap(() => page.Find("not"));
        page.Tap(() => page.Find("reason-thick"));
        page.Until(() => page.Text("sent").Contains("not sent"));
        SetNetwork(page, true);
        page.Until(() => page.Text("sent") == "all sent");
        Assert.Equal(["done", "not thick"], await Kept(page));

        // Opened once, these can be read without a network.
        var session = page.Path;
        void ReadAll()
        {
            page.Visit("/library");
            page.Until(() => page.Text("library-place").Contains("Mid-break, open reds"));
            page.Visit("/frames");
            page.Until(() => page.Text("frame-list").Contains("highest break"));
            page.Visit("/progress?routine=long-pots");
            page.Tap(() => page.Find("weeks-figures"));
            page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=weeks] tbody tr")).Count > 3);
            page.Visit("/practice/routines/long-pots");
            page.Find("play-routine");
        }
        ReadAll();
        page.Visit(session);
        page.Find("attempt-bar");

        // The server goes in the midst of it, the tab is closed, and another opened: the page and what was counted are there.
        await desk.KillServerAsync();
        try
        {
            page.Tap(() => page.Find("not"));
            page.Tap(() => page.Find("reason-thin"));
            page.Tap(() => page.Find("done"));
            page.Tap(() => page.Find("undo-attempt"));
            page.Tap(() => page.Find("done"));
            page.Until(() => page.Text("sent").Contains("not sent"));
            var address = page.Path;
            var first = page.Driver.CurrentWindowHandle;
            page.Driver.SwitchTo().NewWindow(WindowType.Tab);
            var second = page.Driver.CurrentWindowHandle;
            page.Driver.SwitchTo().Window(first).Close();
            page.Driver.SwitchTo().Window(second);
            page.Visit(address);
            page.Until(() => page.Text("sent").Contains("not sent"));
            page.Until(() => page.Text("count").Contains("2 of 4 in all"));
            ReadAll();
            page.Visit(address);
            page.Find("attempt-bar");
        }
        finally
        {
            await desk.StartServerAsync();
        }
        page.Until(() => page.Text("sent") == "all sent");
        Assert.Equal(["done", "not thick", "not thin", "done"], await Kept(page));

        page.Visit("/progress?routine=long-pots");
        page.Tap(() => page.Find("weeks-figures"));
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=weeks] tbody tr")).Count >= 5);
        page.Css(".chart svg path");
        page.Find("better");
        Assert.True(
            Convert.ToInt32(page.Driver.ExecuteScript("return document.documentElement.scrollWidth - innerWidth")) <= 1,
            "the page is wider than the phone"
        );
    }

    [Fact]
    public void A_touch_says_where_the_white_stopped_and_the_rule_judges_it()
    {
        var page = desk.Open(390, 844, touch: true);
        Begin(page, "stop");
        page.Until(() => page.Text("sent") == "all sent");
        page.Tap(() => page.Find("count-plan"));
        page.Find("pointed");
        // Far from the circle: said to be done, and by the rule it is not.
        page.Driver.ExecuteScript("document.querySelector('[data-testid=count-plan]').scrollIntoView()");
        page.DragByTouch(page.Find("pointed"), -120, 60);
        Press(page, "done");
        page.Until(() => page.Text("last-attempt").Contains("not done"));
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=trial]")).Count == 1);
        // A second touch corrects it, and so does a word; the rule judges anew.
        page.Tap(() => page.Find("place-attempt"));
        page.Driver.ExecuteScript("document.querySelector('[data-testid=count-plan]').scrollIntoView()");
        page.Tap(() => page.Find("count-plan"));
        page.Until(() => page.Text("attempt-bar").Contains("then say how it went"));
        page.Tap(() => page.Find("say-otherwise"));
        page.Tap(() => page.Find("reason-thick"));
        Press(page, "done");
        page.Tap(() => page.Driver.FindElements(By.CssSelector("[data-testid=pick-attempt]"))[1]);
        page.Until(() => page.Text("last-attempt").StartsWith("Attempt 1: not done", StringComparison.Ordinal));
        Assert.Contains("is-checked", page.Find("reason-thick").GetAttribute("class"));
        // Of a stroke that stopped elsewhere it is said what went wrong.
        page.Tap(() => page.Find("ask-why"));
        page.Until(() => Regex.IsMatch(page.Text("why-attempt"), "It was|usual spread|No stroke near"));
        page.Tap(() => page.Find("put-back"));
        page.Until(() => page.Text("put-back-list").Contains("from the top cushion"));
    }

    [Fact]
    public void The_steps_of_a_session_are_looked_at_one_stroke_at_a_time()
    {
        var page = desk.Open(390, 844, touch: true);
        Begin(page, "thin-pots");
        var session = page.Path;
        page.Tap(() => page.Find("session-glance"));
        page.Until(() => page.Path == "/glance" && page.Text("glance").Contains("1 of "));
        page.Find("glance-aim");
        page.Tap(() => page.Find("glance-back"));
        page.Until(() => page.Path == session);
    }

    [Fact]
    public void A_coach_sees_attempts_come_in_writes_a_word_and_changes_the_task_while_the_player_goes_on()
    {
        var player = desk.Open(390, 844, touch: true);
        Begin(player, "thin-pots");
        Press(player, "done");
        player.Until(() => player.Text("sent") == "all sent");

        var coach = desk.Open();
        coach.Visit(player.Path);
        coach.Until(() => Counted(coach) == 1);
        Press(player, "not");
        coach.Until(() => Counted(coach) == 2);

        coach.Click(() => coach.Find("write-note"));
        coach.Css("[data-testid=note-text] input, input[data-testid=note-text]").SendKeys("Head still." + Keys.Enter);
        player.Until(() => player.Text("coach-note") == "Head still.");
        // A reason that the player gives since does not touch it.
        player.Tap(() => player.Find("reason-thick"));
        coach.Until(() => coach.Text("attempts").Contains("too thick"));
        Assert.Equal("Head still.", coach.Text("coach-note"));

        coach.Click(() => coach.Find("side-other"));
        player.Until(() => Counted(player) == 0);
        Press(player, "done");
        coach.Until(() => Counted(coach) == 1);
    }

    [Fact]
    public void A_position_becomes_a_routine_in_two_presses_and_is_kept_easier()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Find("arrival");
        page.Click(() => page.Find("practise"));
        page.Click(() => page.Find("keep-routine"));
        page.Find("play-routine");
        Assert.StartsWith("/practice/routines/", page.Path);
        page.Until(() => page.Text("outlook").Contains('%'));
        page.Click(() => page.Find("easier"));
        page.Until(() => page.Text("variants").Contains('%'));
        var before = page.Path;
        page.Click(() => page.Find("keep-variant"));
        page.Until(() => page.Path != before && page.Path.StartsWith("/practice/routines/", StringComparison.Ordinal));
    }

    [Fact]
    public void A_session_goes_into_the_bin_and_comes_back()
    {
        var page = desk.Open();
        Begin(page, "thin-pots");
        Press(page, "done");
        page.Until(() => page.Text("sent") == "all sent");
        string Latest() => page.Css("[data-testid=sessions] li a").GetAttribute("href")!;
        var session = page.Path;
        page.Visit("/practice");
        Assert.EndsWith(session, Latest());
        page.Click(() => page.Find("delete-session"));
        page.Until(() => page.HasNotice("in the bin") && !Latest().EndsWith(session, StringComparison.Ordinal));
        page.Click(() => page.Find("session-bin"));
        page.Click(() => page.Find("restore-session"));
        page.Until(() => page.HasNotice("is back"));
        page.Click(() => page.Find("session-bin"));
        page.Until(() => Latest().EndsWith(session, StringComparison.Ordinal));
    }

    [Fact]
    public void A_run_is_counted_by_its_balls_and_keys_count_too()
    {
        var page = desk.Open();
        Begin(page, "line-up");
        page.Click(() => page.Find("run-red"));
        page.Click(() => page.Find("run-black"));
        page.Click(() => page.Find("run-red"));
        Assert.Equal("9", page.Text("run-score"));
        page.Click(() => page.Find("run-over"));
        page.Until(() => page.Text("last-attempt").Contains("9 points"));

        Begin(page, "thin-pots");
        page.Until(() => Counted(page) == 0);
        page.Keys("dn1");
        page.Until(() => Counted(page) == 2 && page.Text("attempts").Contains("not, too thick"));
        new Actions(page.Driver).KeyDown(Keys.Control).SendKeys("z").KeyUp(Keys.Control).Perform();
        page.Until(() => Counted(page) == 1);
    }
}
