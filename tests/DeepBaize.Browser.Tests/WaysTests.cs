using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace DeepBaize.Browser.Tests;

/// <summary>The shot desk's main path: put it there, compare, set up, keep.</summary>
[Collection("desk")]
[BrowsersGoBack]
public class WaysTests(Desk desk)
{
    private static int Ways(Page page) => page.Driver.FindElements(By.CssSelector("[data-testid=way]")).Count;

    private static bool IsDone(Page page) =>
        Ways(page) > 0 && page.Driver.FindElements(By.CssSelector("[data-testid=stop-search]")).Count == 0;

    private static void PointAt(Page page, double x, double y)
    {
        var plan = page.Find("plan");
        var (dx, dy) = ((int)(plan.Size.Width * (x - 0.5)), (int)(plan.Size.Height * (y - 0.5)));
        new Actions(page.Driver).MoveToElement(plan, dx, dy).Click().Perform();
    }

    [Fact]
    public void The_white_is_put_where_the_user_points_and_two_ways_are_laid_beside_one_another()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Click(() => page.Find("put-it-there"));
        page.Says("ways", "Point to where");
        PointAt(page, 0.63, 0.7);
        page.Find("goal");
        page.Until(() => IsDone(page));
        var before = page.WhitePath;
        page.Click(() => page.Css("[data-testid=way] .words"));
        page.Until(() => page.WhitePath != before);
        // The white comes to rest within the circle that was pointed at.
        var goal = page.Find("goal");
        var (gx, gy, r) = (Number(goal, "cx"), Number(goal, "cy"), Number(goal, "r"));
        page.Until(() =>
        {
            var rest = page.Css(".rest-white");
            return Math.Sqrt(Math.Pow(Number(rest, "cx") - gx, 2) + Math.Pow(Number(rest, "cy") - gy, 2)) <= r;
        });
        Assert.Contains("ranks first", page.Css("[data-testid=way].used").Text, StringComparison.OrdinalIgnoreCase);

        page.Until(() => IsDone(page) && Ways(page) > 1);
        page.Click(() => page.Driver.FindElements(By.CssSelector("[data-testid=way] .lay"))[0]);
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-way=a]")).Count == 1);
        page.Click(() => page.Driver.FindElements(By.CssSelector("[data-testid=way] .lay"))[1]);
        page.Says("beside", "Pot and position");
        Assert.Equal(2, page.Driver.FindElements(By.CssSelector("[data-way]")).Count);
        // One undo takes the way that was set up back.
        page.Find("undo").Click();
        page.Until(() => page.WhitePath == before);
    }

    [Fact]
    public void A_cannon_is_asked_for_by_ball_and_the_keyboard_opens_the_panel()
    {
        var page = desk.Open();
        page.OpenPosition("Mid-break, open reds");
        page.Find("plan").SendKeys("t");
        page.Click(() => page.Find("goal-cannon"));
        page.Choose("goal-ball", "red-2");
        page.Until(() => IsDone(page));
        Assert.Contains("red 2", page.Css("[data-testid=way]").Text);
        Assert.Contains("%", page.Css("[data-testid=way]").Text);
    }

    [Fact]
    public void A_search_is_stopped_and_goes_on_again()
    {
        var page = desk.Open();
        page.OpenPosition("High on the black, full pack");
        page.Click(() => page.Find("put-it-there"));
        PointAt(page, 0.7, 0.6);
        page.Click(() => page.Find("stop-search"));
        page.Until(() => page.Text("ways").Contains("stopped"));
        page.Click(() => page.Driver.FindElements(By.CssSelector("[data-testid=ways] button")).First(b => b.Text == "Go on"));
        page.Until(() => IsDone(page));
    }

    [Fact]
    public void A_shot_is_kept_with_its_line_and_comes_back_and_a_card_is_made()
    {
        var page = desk.Open();
        page.OpenPosition("Last red to the colours");
        page.Click(() => page.Find("keep"));
        page.Says("kept-shots", "No kept shots");
        var path = page.WhitePath;
        page.Find("note").SendKeys("Through the ball");
        page.Click(() => page.Find("keep-shot"));
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=kept-shot]")).Count == 1);
        page.Slider("pace").SendKeys(Keys.ArrowRight + Keys.ArrowRight);
        page.Until(() => page.WhitePath != path);
        page.Click(() => page.Css("[data-testid=kept-shot] .words"));
        page.Until(() => page.WhitePath == path);
        Assert.Equal("Through the ball", page.Css("[data-testid=kept-shot] input").GetAttribute("value"));
        // As one glance at the table, and back.
        page.Click(() => page.Find("kept-glance"));
        page.Says("glance", "Through the ball");
        page.Click(() => page.Find("glance-back"));
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=kept-shot]")).Count == 1);
        // The card as the page sends it, fetched once more by hand: headless Chromium keeps no downloads.
        page.Driver.ExecuteScript(
            "window.cards = []; const f = window.fetch; window.fetch = async (...a) => { const r = await f(...a); "
                + "if (String(a[0]).includes('card')) window.cards.push([r.status, r.headers.get('content-type')].join()); return r }"
        );
        page.Click(() => page.Find("card-pdf"));
        page.Until(() => (string?)page.Driver.ExecuteScript("return window.cards.join()") == "200,application/pdf");

        // Deleted, and back by the notice.
        page.Click(() => page.Driver.FindElements(By.CssSelector("[data-testid=kept-shot] button")).Last());
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=kept-shot]")).Count == 0);
        page.Click(() => page.Driver.FindElements(By.CssSelector("[data-testid=notice] button")).First(b => b.Text == "Undo"));
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=kept-shot]")).Count == 1);
    }

    [Fact]
    public void The_hand_decides_the_reach_and_the_aim_says_why()
    {
        var page = desk.Open();
        page.OpenPosition("High on the black, full pack");
        page.Says("reach", "natural");
        SetHand(page, "left");
        page.Until(() => page.Text("reach").Contains("stretch"));
        SetHand(page, "right");
        page.Until(() => page.Text("reach").Contains("natural"));
        page.Click(() => page.Find("why-aim"));
        page.Until(() => page.Text("sides").Contains("helping"));
        page.Until(() => page.Text("sides").Contains("plain ball"));
        // A double from the list is set up as one.
        page.Find("plan").SendKeys("l");
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=read-list] .kind")).Count > 0);
        page.Click(() => page.Driver.FindElements(By.CssSelector("[data-testid=read-list] .kind")).First(k => k.Text == "double"));
        page.Click(() => page.Find("what-happens"));
        page.Until(() => page.Css(".panel .kind").Text.Contains("double", StringComparison.OrdinalIgnoreCase));
    }

    private static void SetHand(Page page, string hand)
    {
        page.Click(() => page.Find("settings"));
        page.Click(() => page.Find($"hand-{hand}"));
        page.Click(() => page.Find("table"));
    }

    private static double Number(IWebElement element, string attribute) =>
        double.Parse(element.GetAttribute(attribute)!, System.Globalization.CultureInfo.InvariantCulture);
}
