using DeepBaize.Core.Table;
using OpenQA.Selenium;
using OpenQA.Selenium.Support.UI;

namespace DeepBaize.Browser.Tests;

/// <summary>
/// Attack or defend in the page: safeties with what they leave, escapes with the mirror's construction, the black-ball game.
/// </summary>
[Collection("second desk")]
[BrowsersGoBack]
public class DecideTests(SecondDesk desk)
{
    private static int Count(Page page, string testId) => page.Driver.FindElements(By.CssSelector($"[data-testid={testId}]")).Count;

    private static void UntilDecided(Page page)
    {
        var wait = page.Wait(TimeSpan.FromSeconds(120));
        wait.Until(_ => Count(page, "decide-item") > 0 && Count(page, "stop-decide") == 0);
    }

    private static void Choose(Page page, string kind) => page.Click(() => page.Css($"[data-testid=decide-item][data-kind={kind}] .words"));

    [Fact]
    public void A_safety_is_set_up_with_all_it_may_leave_and_undone()
    {
        var page = desk.Open();
        page.OpenPosition("Opening break");
        page.Find("plan").SendKeys("v");
        UntilDecided(page);
        page.Says("verdict", "play safe");
        var before = page.WhitePath;
        Choose(page, "safety");
        page.Until(() => page.WhitePath != before);
        page.Says("decide-detail", "in the worst tenth");
        page.Find("safety-spread");
        page.Find("what-it-leaves").Click();
        page.Says("leave-words", "The other player");
        page.Find("undo").Click();
        page.Until(() => page.WhitePath == before);
    }

    [Fact]
    public void A_pot_and_a_safety_are_weighed_against_each_other()
    {
        var page = desk.Open();
        page.OpenPosition("Mid-break, open reds");
        page.Find("decide").Click();
        UntilDecided(page);
        page.Says("verdict", "pot");
        Choose(page, "attack");
        page.Says("decide-detail", "Goes in");
    }

    [Fact]
    public void An_escape_is_drawn_with_the_mirrors_construction_tried_corrected_and_kept()
    {
        var page = desk.Open();
        page.OpenPosition("Snookered behind the brown");
        page.Find("decide").Click();
        UntilDecided(page);
        page.Says("verdict", "Snookered");
        page.Click(() => page.Driver.FindElements(By.CssSelector("[data-testid=decide-item] .words")).First(e => e.Text.Contains(" and ")));
        page.Says("mirror-words", "As in a mirror");
        page.Find("mirror");
        page.Until(() => page.WhitePath.Length > 20);
        var before = page.WhitePath;
        page.Click(() => page.Find("correct"));
        page.Until(() => page.HasNotice("Next time aim"));
        page.Until(() => page.WhitePath != before);
        page.Click(() => page.Find("keep-correction"));
        page.Until(() => page.HasNotice("Kept for this table"));
    }

    [Fact]
    public void The_openings_of_the_black_ball_game_are_compared_and_set_up()
    {
        var page = desk.Open();
        page.OpenPosition("Re-spotted black");
        page.Find("decide").Click();
        page.Click(() => page.Find("compare-openings"));
        page.Wait(TimeSpan.FromSeconds(120)).Until(_ => Count(page, "go-first") > 0);
        page.Says("openings", "Newer");
        var white = page.Ball("white");
        page.Click(() => page.Css("[data-testid=openings] .words"));
        page.Until(() => page.Ball("white") != white);
    }
}
