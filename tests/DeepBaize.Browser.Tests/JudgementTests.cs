using OpenQA.Selenium;

namespace DeepBaize.Browser.Tests;

[Collection("desk")]
[BrowsersGoBack]
public class JudgementTests(Desk desk)
{
    [Fact]
    public void What_is_on_is_listed_shown_and_chosen()
    {
        var page = desk.Open();
        page.OpenPosition("Mid-break, open reds");
        page.Find("what-is-on").Click();
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=read-list] tbody tr")).Count > 3);
        var rows = page.Driver.FindElements(By.CssSelector("[data-testid=read-list] tbody tr"));
        var blue = rows.First(r => r.Text.Contains("blue", StringComparison.Ordinal));
        Assert.Contains("%", blue.Text);
        new OpenQA.Selenium.Interactions.Actions(page.Driver).MoveToElement(blue).Perform();
        page.Find("pointed");
        page.Click(() =>
            page
                .Driver.FindElements(By.CssSelector("[data-testid=read-list] tbody tr"))
                .First(r => r.Text.Contains("blue", StringComparison.Ordinal))
        );
        page.Until(() => page.Text("outcome").Contains("Blue"));
        page.Find("what-happens").Click();
        page.Until(() => page.Text("object-ball").Contains("blue"));
    }

    [Fact]
    public void Routes_and_spread_are_drawn_and_follow_the_stroke()
    {
        var page = desk.Open();
        page.OpenPosition("Last red to the colours");
        page.Click(() => page.Find("fan-routes"));
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-fan]")).Count == 3);
        Assert.Contains("stun", page.Find("plan").Text);
        page.Click(() => page.Find("spread"));
        page.Until(() => page.Text("chances").Contains("Goes in"));
        var outline = page.Css("[data-testid=spread-outline] .likely").GetAttribute("d");
        page.Slider("pace").SendKeys(Keys.ArrowLeft + Keys.ArrowLeft + Keys.ArrowLeft);
        page.Until(() => page.Css("[data-testid=spread-outline] .likely").GetAttribute("d") != outline);
        Assert.Contains("arrives", page.Css(".cut").Text, StringComparison.OrdinalIgnoreCase);
    }

    [Fact]
    public void The_windows_of_a_stroke_stand_under_its_knobs_and_follow_them()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Says("window-pace", "from");
        var aim = page.Text("window-aim");
        page.Slider("pace").SendKeys(Keys.ArrowRight + Keys.ArrowRight + Keys.ArrowRight + Keys.ArrowRight + Keys.ArrowRight);
        page.Until(() => page.Text("window-aim") != aim);
        // A place where the white does not stop is not reached by the stroke as it is set.
        page.Click(() => page.Find("put-it-there"));
        page.Find("goal-stop");
        page.PressPlan(0.4, 0.4);
        page.Says("windows", "it does not go in and do that");
    }

    [Fact]
    public void A_pot_that_is_missed_says_by_how_much_and_off_which_side()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Find("arrival");
        // A tenth of a degree at a time, until it stays out.
        page.Until(() =>
        {
            page.Keys("a");
            return page.Text("outcome").Contains(" missed, ", StringComparison.Ordinal);
        });
        page.Find("crossing");
    }
}
