using DeepBaize.Core.Table;
using OpenQA.Selenium;
using OpenQA.Selenium.Support.UI;

namespace DeepBaize.Browser.Tests;

/// <summary>
/// Planning a break in the page: plan, look ahead, play on with the white dragged short, keep and open again; where to be; what cannot be
/// planned.
/// </summary>
[Collection("desk")]
[BrowsersGoBack]
public class PlanningTests(Desk desk)
{
    private static int Count(Page page, string testId) => page.Driver.FindElements(By.CssSelector($"[data-testid={testId}]")).Count;

    private static bool IsDone(Page page) => Count(page, "plan-shot") > 0 && Count(page, "stop-plan") == 0;

    /// <summary>A plan may take ten seconds, and longer while other tests keep the cores busy.</summary>
    private static void UntilPlanned(Page page)
    {
        var wait = page.Wait(TimeSpan.FromSeconds(120));
        wait.IgnoreExceptionTypes(typeof(StaleElementReferenceException));
        wait.Until(_ => IsDone(page));
    }

    private static string Strip(Page page) =>
        string.Join(" | ", page.Driver.FindElements(By.CssSelector("[data-testid=plan-shot]")).Select(e => e.Text));

    [Fact]
    public void A_break_is_planned_played_on_from_a_white_that_stopped_short_and_kept()
    {
        var page = desk.Open();
        page.OpenPosition("Colours on their spots");
        page.Find("plan-break").Click();
        // The first answer is there while the rest is still being looked for.
        page.Find("plan-detail");
        UntilPlanned(page);
        page.Until(() => Count(page, "plan-shot") == 6);
        Assert.Contains("yellow, ", Strip(page).Split(" | ")[0]);
        Assert.NotEmpty(page.Driver.FindElements(By.CssSelector("[data-testid=reasons] li")));
        page.Says("frame-words", "27 left");
        page.Says("prospect", "played out");

        // A look ahead shows the table of that moment: the yellow has gone, and nothing has changed.
        page.Click(() => page.Driver.FindElements(By.CssSelector("[data-testid=plan-shot]"))[1]);
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-ball=yellow]")).Count == 0);
        page.Click(() => page.Driver.FindElements(By.CssSelector("[data-testid=plan-shot]"))[0]);
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-ball=yellow]")).Count == 1);

        page.Click(() => page.Find("potted"));
        page.Until(() => page.HasNotice("2 points, break 2"));
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-ball=yellow]")).Count == 0);
        var (x, y) = page.Ball("white");
        // It stopped a little short: nudged by the keyboard, as it could be dragged.
        page.Find("plan").SendKeys(Keys.Shift + Keys.ArrowLeft + Keys.ArrowLeft + Keys.ArrowLeft);
        page.Until(() => page.Ball("white") != (x, y));
        page.Until(() => page.Text("frame-words").Contains("The green is on", StringComparison.Ordinal));
        UntilPlanned(page);
        page.Until(() => Count(page, "plan-shot") == 5);
        Assert.Contains("green, ", Strip(page).Split(" | ")[0]);

        // Kept as a position of its own, with the plan; opened again after a reload it is just as it was.
        page.More("Save as");
        page.TypeName("Short for the green");
        page.Until(() => page.Text("position-name") == "Short for the green");
        var strip = Strip(page);
        page.Click(() => page.Find("keep-plan"));
        page.Find("kept-plans");
        page.Reload();
        page.OpenPosition("Short for the green");
        page.Find("plan-break").Click();
        page.Click(() => page.Find("kept-plans"));
        page.Click(() => page.Driver.FindElements(By.CssSelector(".el-dropdown-menu__item")).First(i => i.Displayed));
        page.Until(() => Strip(page) == strip && Count(page, "stop-plan") == 0);
    }

    [Fact]
    public void A_missed_pot_passes_the_turn_and_can_be_undone()
    {
        var page = desk.Open();
        page.OpenPosition("Last red to the colours");
        page.Find("plan").SendKeys("p");
        page.Click(() => page.Find("missed-thin"));
        page.Until(() => page.HasNotice("Missed"));
        Assert.Single(page.Driver.FindElements(By.CssSelector("[data-ball='red-1']")));
        page.Find("undo").Click();
        page.Until(() => page.Text("frame-words").Contains("A red is on"));
    }

    [Fact]
    public void The_first_shots_are_laid_beside_one_another_with_why_they_rank_lower()
    {
        var page = desk.Open();
        page.OpenPosition("Last red to the colours");
        page.Find("plan-break").Click();
        UntilPlanned(page);
        page.Click(() => page.Find("beside-plans"));
        var rows = page.Find("alternatives").FindElements(By.CssSelector("tbody tr"));
        Assert.Contains("the best", rows[0].Text);
        Assert.True(rows.Count > 1);
        // Why, and by how much; or that the breaks played cannot tell them apart.
        Assert.Matches("less|level with the best", rows[1].Text);
    }

    [Fact]
    public void Nothing_on_points_to_safety_and_an_impossible_frame_says_what_is_wrong()
    {
        var page = desk.Open();
        page.OpenPosition("Snookered behind the brown");
        page.Find("plan-break").Click();
        page.Says("nothing-on", "Play safe");
        page.OpenPosition("Black off its spot");
        page.Until(() => page.Text("frame-words").Contains("again and again"));
        page.Click(() => page.Find("frame-fields"));
        page.Choose("ball-on", "red");
        page.Says("plan-problem", "A red is on, but there is none");
        page.Find("undo").Click();
        page.Until(() => page.Text("frame-words").Contains("again and again"));
        page.OpenPosition("Stun across for the pink");
        page.Says("frame-words", "An exercise: ");
        page.Choose("ball-on", "red");
        page.Says("plan-problem", "A colour is missing while reds remain");
        // With one press they are an exercise again, in an order that is pressed too.
        page.Click(() => page.Find("make-exercise"));
        page.Until(() => page.Text("frame-words").StartsWith("An exercise: ", StringComparison.Ordinal));
        page.Choose("ball-on", "inOrder");
        page.Click(() => page.Find("exercise-pink"));
        page.Until(() => page.Text("frame-words").Contains("red 1 is on; 8 left"));
    }

    [Fact]
    public async Task A_lot_for_the_black_spotted_again_and_a_foul_are_settled_on_the_desk_and_taken_back()
    {
        const string balls = """{ "id": "black", "x": 3.245, "y": 0.889 }, { "id": "white", "x": 0.6, "y": 0.889 }""";
        var page = desk.Open();
        await page.Save(
            "Level after the black",
            balls,
            """{ "on": "black", "first": 61, "second": 61, "inHand": true, "respotted": true, "awaitsLot": true }"""
        );
        page.OpenPosition("Level after the black");
        page.Find("plan-break").Click();
        page.Click(() => page.Find("frame-fields"));
        page.Click(() => page.Find("lot-second"));
        page.Until(() => Count(page, "lot") == 0 && page.Text("frame-words").StartsWith("The black is on", StringComparison.Ordinal));
        page.Find("undo").Click();
        page.Find("lot");
        page.Find("redo").Click();
        page.Until(() => Count(page, "lot") == 0);

        const string pink = """{ "id": "pink", "x": 2.677, "y": 0.889 }, """;
        var offence = """{ "miss": true, "misses": 1, "before": { "on": "pink", "first": 40, "second": 40 }, "balls": [BEFORE] }""";
        offence = offence.Replace("BEFORE", pink + balls.Replace("0.6,", "1.2,"));
        var frame = """{ "on": "pink", "first": 40, "second": 46, "turn": 1, "offence": OFFENCE }""".Replace("OFFENCE", offence);
        await page.Save("After a miss on the pink", pink + balls, frame);
        page.Find("save").Click();
        page.Until(() => Count(page, "unsaved") == 0);
        page.OpenPosition("After a miss on the pink");
        page.Find("after-foul");
        var white = page.Ball("white");
        page.Click(() => page.Find("put-back"));
        page.Until(() => page.Ball("white") != white && Count(page, "after-foul") == 0);
        page.Find("undo").Click();
        page.Find("after-foul");
    }

    [Fact]
    public void Where_to_be_is_drawn_over_the_plan_and_says_why_under_the_pointer()
    {
        var page = desk.Open();
        page.OpenPosition("Mid-break, open reds");
        page.Find("what-is-on").Click();
        page.Click(() => page.Find("where-to-be"));
        page.Choose("map-target", "pink");
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=map] path")).Count == 5);
        new OpenQA.Selenium.Interactions.Actions(page.Driver).MoveToElement(page.Find("plan"), 60, 60).Perform();
        page.Until(() => page.Text("map-reasons").Contains("pink into"));
        page.Find("plan").SendKeys("m");
        page.Until(() => Count(page, "map") == 0);
    }
}
