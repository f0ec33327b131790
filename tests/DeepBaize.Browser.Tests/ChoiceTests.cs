using OpenQA.Selenium;

namespace DeepBaize.Browser.Tests;

/// <summary>Choices: which ball to play for, strokes compared, and a rally played on, with mouse and with a thumb.</summary>
[Collection("desk")]
[BrowsersGoBack]
public class ChoiceTests(Desk desk)
{
    private static int Count(Page page, string testId) => page.Driver.FindElements(By.CssSelector($"[data-testid={testId}]")).Count;

    private static IWebElement Ball(Page page, string id) => page.Css($"[data-ball='{id}']");

    [Fact]
    public void My_own_strokes_are_compared_with_their_difference_and_come_back_after_a_reload()
    {
        var page = desk.Open();
        page.OpenPosition("Mid-break, open reds");
        page.Click(() => page.Find("compare-strokes"));
        page.Says("compare-empty", "add it, then another");
        page.Click(() => page.Find("lay-choice"));
        page.Says("compare-empty", "Set up another stroke");
        // Laid twice it would be level with itself.
        Assert.False(page.Find("lay-choice").Enabled);
        page.Find("plan").SendKeys("+++++");
        page.Until(() => page.Find("lay-choice").Enabled);
        page.Click(() => page.Find("lay-choice"));
        page.Until(() => Count(page, "choice") == 2);
        page.Wait(TimeSpan.FromSeconds(60)).Until(_ => Count(page, "stop-compare") == 0 && Count(page, "compare-table") == 1);
        page.Until(() => page.Text("compare-verdict").Contains("better than") || page.Text("compare-verdict").Contains("level"));
        page.Says("compare-table", "Bad leaves");
        // What small mistakes do comes with the last word.
        page.Until(() => !page.Text("compare-table").Contains('…'));
        page.Says("compare-table", "white");
        // A column's head sets its stroke up.
        var before = page.WhitePath;
        page.Click(() => page.Find("column-A"));
        page.Until(() => page.WhitePath != before);
        page.Driver.Navigate().Refresh();
        page.Until(() => Count(page, "choice") == 2);
        page.Until(() => Count(page, "compare-table") == 1);
        page.Click(() => page.Driver.FindElements(By.CssSelector("[data-testid=choice] [aria-label='Remove stroke B']"))[0]);
        page.Says("compare-empty", "Set up another stroke");
    }

    [Fact]
    public void The_ball_to_play_for_is_pointed_at_and_the_plan_goes_on_to_it()
    {
        var page = desk.Open(touch: true);
        page.OpenPosition("Mid-break, open reds");
        page.Tap(() => page.Find("plan-break"));
        page.Tap(() => page.Find("wishes"));
        page.Says("ball-wishes", "Point at a ball");
        page.Tap(() => Ball(page, "pink"));
        page.Says("ball-wishes", "The pink");
        page.Tap(() => page.Find("wish-next"));
        page.Says("wish-chips", "next: pink");
        page.Wait(TimeSpan.FromSeconds(90)).Until(_ => Count(page, "stop-plan") == 0 && Count(page, "plan-shot") > 1);
        var second = page.Driver.FindElements(By.CssSelector("[data-testid=plan-shot]"))[1];
        Assert.Contains("Pink", second.Text, StringComparison.OrdinalIgnoreCase);
        page.Tap(() => page.Find("all-reasons"));
        page.Says("study", "usual error");
        // A red cannot be next while a red is on.
        page.Tap(() => Ball(page, "red-1"));
        page.Says("ball-wishes", "ed 1");
        Assert.False(page.Find("wish-next").Enabled);
        page.Tap(() => page.Find("next-balls"));
        page.Until(() => Count(page, "next-ball") > 1);
        page.Tap(() => page.Css("[data-testid=wish-chips] .el-tag__close"));
        page.Until(() => page.IsGone("wish-chips"));
    }

    [Fact]
    public void From_the_map_the_ways_to_its_best_place_are_asked_for()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Click(() => page.Find("what-is-on"));
        page.Click(() => page.Find("where-to-be"));
        page.Find("map");
        page.Click(() => page.Find("ways-best"));
        page.Find("goal");
        page.Wait(TimeSpan.FromSeconds(60)).Until(_ => Count(page, "way") > 0);
    }

    [Fact]
    public void A_rally_is_played_on_by_both_players_and_gone_back_in()
    {
        var page = desk.Open();
        page.OpenPosition("Opening break");
        page.Click(() => page.Find("decide"));
        void Decided() =>
            page.Wait(TimeSpan.FromSeconds(90))
                .Until(_ => Count(page, "decide-item") > 0 && Count(page, "stop-decide") == 0 && page.Text("verdict").Length > 0);
        Decided();
        var white = page.Ball("white");
        // Two taps for each stroke: the line, and that it was played.
        page.Click(() => page.Css("[data-testid=decide-item][data-kind=safety] .words"));
        page.Click(() => page.Find("as-played"));
        page.Until(() => Count(page, "rally-stroke") == 1);
        page.Says("rally-turn", "The other player");
        page.Until(() => page.Ball("white") != white);
        Decided();
        page.Click(() => page.Css("[data-testid=decide-item] .words"));
        page.Click(() => page.Find("as-played"));
        page.Until(() => Count(page, "rally-stroke") == 2);
        // Back to before the first stroke: the table is as it was. Lists that come in meanwhile would move the line under the pointer.
        Decided();
        page.Click(() => page.Css("[data-testid=rally-stroke] .words"));
        page.Until(() => Count(page, "rally-stroke") == 0);
        page.Until(() => page.Ball("white") == white);
    }
}
