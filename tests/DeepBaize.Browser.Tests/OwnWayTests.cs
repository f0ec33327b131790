using OpenQA.Selenium;

namespace DeepBaize.Browser.Tests;

/// <summary>What a player has of his own: his scale of paces, what he asks of an attempt, what he tries again or otherwise.</summary>
[Collection("second desk")]
[BrowsersGoBack]
public class OwnWayTests(SecondDesk desk)
{
    [Fact]
    public void Own_numbers_of_pace_are_typed_and_shown_first()
    {
        var page = desk.Open();
        page.Visit("/players");
        page.Click(() => page.Find("add-pace"));
        var standard = page.Css("input[aria-label='Standard pace of point 1']");
        standard.SendKeys(Keys.Control + "a");
        standard.SendKeys("4" + Keys.Enter);
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=notice]")).Count == 0);
        try
        {
            page.OpenPosition("Stun across for the pink");
            page.Reload();
            page.Says("pace-figures", "standard");
            var typed = page.Css("input[aria-label='Pace']");
            typed.SendKeys(Keys.Control + "a");
            typed.SendKeys("5" + Keys.Enter);
            page.Says("pace-figures", "standard 4.0");
            page.Says("outcome", "pace 5 (standard 4)");
            // Nobody has played the routine yet that would say it.
            page.Visit("/players");
            page.Click(() => page.Find("learn-paces"));
            page.Until(() => page.HasNotice("no attempts at the routine Pace scale"));
        }
        finally
        {
            page.Visit("/players");
            page.Click(() => page.Css("button[aria-label='Remove point 1']"));
            page.Says("pace-scale", "the standard one");
        }
    }

    [Fact]
    public void What_is_asked_of_an_attempt_is_pointed_at_on_the_plan()
    {
        var page = desk.Open();
        page.OpenPosition("Mid-break, open reds");
        page.Find("arrival");
        page.Click(() => page.Role("button", "Practise this"));
        page.Choose("also-ask", "gate");
        page.Says("point-what", "Touch the two balls of the gate");
        // A dialog that still grows may be missed: what is touched again stays as it is.
        void Touch(string ball, string said) =>
            page.Until(() =>
            {
                page.Click(() => page.Css($".el-dialog [data-ball='{ball}']"));
                return page.Css(".el-dialog").Text.Contains(said, StringComparison.Ordinal);
            });
        Touch("blue", "blue");
        Touch("black", "black");
        page.Choose("also-ask", "whiteOnCushion");
        page.Says("point-what", "Touch the cushion");
        // The yellow lies nearest to the cushion on its side.
        Touch("yellow", "yellow’s side cushion");
        page.Click(() => page.Find("keep-routine"));
        page.Until(() => page.Path.StartsWith("/practice/routines/", StringComparison.Ordinal));
        page.Find("play-routine");
        var asked = page.Css("main").Text;
        Assert.True(asked.Contains("Between blue and black", StringComparison.Ordinal), asked);
        Assert.Contains("yellow’s side cushion", asked);
    }

    [Fact]
    public void A_shot_put_back_within_a_run_is_tallied_and_a_change_is_told_against_what_was_before()
    {
        var page = desk.Open();
        page.Visit("/practice/routines/line-up");
        page.Click(() => page.Find("play-routine"));
        page.Click(() => page.Find("run-red"));
        page.Click(() => page.Find("again-done"));
        page.Click(() => page.Find("again-not"));
        page.Click(() => page.Find("again-done"));
        page.Says("repeats", "2 of 3");
        page.Click(() => page.Find("run-over"));
        page.Says("attempts", "1 point, put back and played again 2 of 3");

        page.Visit("/practice/routines/stop");
        page.Click(() => page.Find("play-routine"));
        page.Click(() => page.Find("not"));
        page.Click(() => page.Find("change-one"));
        page.Find("group").SendKeys("lower bridge");
        page.Click(() => page.Find("apply-change"));
        page.Until(() => page.IsGone("group") || !page.Driver.FindElement(By.CssSelector("[data-testid=group]")).Displayed);
        page.Click(() => page.Find("done"));
        page.Says("groups", "before: 0 of 1");
        page.Says("groups", "lower bridge: 1 of 1");
    }
}
