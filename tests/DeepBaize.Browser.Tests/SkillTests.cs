using OpenQA.Selenium;

namespace DeepBaize.Browser.Tests;

/// <summary>The player's skill: set by hand, what it means at the table, and what it does to a shot.</summary>
[Collection("second desk")]
[BrowsersGoBack]
public class SkillTests(SecondDesk desk)
{
    [Fact]
    public void A_skill_set_by_hand_is_pictured_kept_and_misses_as_it_says()
    {
        var page = desk.Open();
        page.OpenPosition("Black off its spot");
        page.Find("settings").Click();
        page.Until(() => Charts(page) == 9);
        var pictures = Pictures(page);
        Assert.Equal(4, pictures.Length);
        page.Choose("skill", "own");
        page.Until(() => page.Find("own-height").Displayed);

        // Out of range: refused beside the figure, and nothing changes.
        Type(page.Find("own-height"), "9");
        page.Until(() => page.Css("[data-testid=own-skill] [role=alert]").Text.Contains("0.00 to 8.00 mm"));
        Type(page.Find("own-height"), "3");
        Type(page.Find("own-sighting"), "3");
        page.Until(() => !Pictures(page).SequenceEqual(pictures));
        var now = Settled(page);
        // Kept: there again after a reload.
        page.Driver.Navigate().Refresh();
        page.Until(() => page.Find("own-height").GetAttribute("value") == "3.00");
        page.Until(() => Pictures(page).SequenceEqual(now));

        // At the table the tip slips off near the edge of the ball, and the spread says how often.
        page.GoTo("/table/now/shot");
        page.OpenPosition("Black off its spot");
        page.Click(() => page.Find("spread"));
        Type(page.Css("input[aria-label^='Height of the tip']"), "-1.5");
        page.Until(() => page.Text("chances").Contains("miscue"));
        page.Find("settings").Click();
        page.Choose("skill", "county");
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=own-skill]")).Count == 0);
    }

    /// <summary>Each change of a figure has its own answer: the pictures once none is on its way.</summary>
    private static string[] Settled(Page page)
    {
        page.Until(() => page.Find("skill-meaning").GetAttribute("aria-busy") == "false");
        return Pictures(page);
    }

    private static void Type(IWebElement input, string figure)
    {
        input.SendKeys(Keys.Control + "a");
        input.SendKeys(figure + Keys.Enter);
    }

    private static int Charts(Page page) => page.Driver.FindElements(By.CssSelector("[data-testid=skill-meaning] .charts figure")).Count;

    private static string[] Pictures(Page page) =>
        [
            .. page
                .Driver.FindElements(By.CssSelector("[data-testid=skill-meaning] .pictures svg"))
                .Select(s => s.GetAttribute("innerHTML")!),
        ];
}
