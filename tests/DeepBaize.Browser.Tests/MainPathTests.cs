using System.Text.RegularExpressions;
using OpenQA.Selenium;

namespace DeepBaize.Browser.Tests;

/// <summary>The main paths as somebody takes them who only hears the page: every control by its role and the name it says.</summary>
[Collection("desk")]
[BrowsersGoBack]
public class MainPathTests(Desk desk)
{
    private static void Press(Page page, string role, string name) => page.Click(() => page.Role(role, name));

    private static void Press(Page page, string role, Regex name) => page.Click(() => page.Role(role, name.IsMatch, name.ToString()));

    [Fact]
    public void A_first_visit_sees_a_break_planned_and_drawn_and_is_shown_round()
    {
        var page = desk.Open(isNew: true);
        page.GoTo("/");
        // Offered in a line, over nothing.
        Assert.True(page.IsGone("tour"));
        page.Click(() => page.Find("show-round"));
        page.Find("tour");
        for (var step = 1; step < 6; step++)
        {
            page.Until(() => page.Text("tour").StartsWith($"{step} of 6", StringComparison.Ordinal));
            page.Until(() => CoversNothing(page));
            Press(page, "button", "Next");
        }
        Press(page, "button", "Done");
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=tour]")).Count == 0);
        Assert.Matches("^/table/[0-9a-f-]{36}/break", page.Path);
        page.Find("plan-detail");
        // The whole plan is drawn: the shots after the first as well.
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-shot]")).Count >= 2);
        // Called again.
        Press(page, "button", "Help");
        page.Click(() =>
            page.Driver.FindElements(By.CssSelector(".el-dropdown-menu__item")).First(i => i.Displayed && i.Text == "Show me round")
        );
        page.Find("tour");
        page.Keys(Keys.Escape);
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=tour]")).Count == 0);
        page.Reload();
        Assert.Empty(page.Driver.FindElements(By.CssSelector("[data-testid=tour]")));
    }

    /// <summary>Whether a step of the tour stands in the window, beside what it points at and not over it.</summary>
    private static bool CoversNothing(Page page) =>
        (bool)
            page.Driver.ExecuteScript(
                """
                const b = document.querySelector('.el-tour__content')?.getBoundingClientRect();
                const at = ['.plan-frame', '[data-testid=what-is-on]', '[data-testid=what-happens]', '[data-testid=plan-break]',
                  '[data-testid=decide]', '[data-testid=settings]'][parseInt(document.querySelector('[data-testid=tour]').textContent) - 1];
                const a = document.querySelector(at)?.getBoundingClientRect();
                return !!a && !!b && b.left > -1 && b.top > -1 && b.right < innerWidth + 1 && b.bottom < innerHeight + 1
                  && (b.top >= a.bottom - 1 || b.bottom <= a.top + 1 || b.left >= a.right - 1 || b.right <= a.left + 1);
                """
            )!;

    [Fact]
    public void From_what_is_on_to_the_shot_played_softer_and_saved()
    {
        var page = desk.Open();
        page.OpenPosition("Mid-break, open reds");
        Press(page, "link", "Read");
        Press(page, "button", "red 2, top green-side pocket: set up");
        Press(page, "link", "Shot");
        page.Until(() => page.Text("cut").Contains('°') && page.Text("object-ball").Contains("red 2"));
        var drawn = page.WhitePath;
        page.Role("slider", "Pace").SendKeys(Keys.ArrowLeft + Keys.ArrowLeft);
        page.Until(() => page.WhitePath != drawn);
        Press(page, "radio", "Routes");
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-fan]")).Count > 0);
        Press(page, "button", "Undo");
        Press(page, "button", "More");
        page.Click(() =>
            page.Driver.FindElements(By.CssSelector(".el-dropdown-menu__item")).First(i => i.Displayed && i.Text == "Save as …")
        );
        page.TypeName("Red 2, softer");
        page.Until(() => page.Text("position-name") == "Red 2, softer");
        Assert.Contains("fan=routes", page.Path);
    }

    [Fact]
    public void Every_step_has_an_address_and_Back_goes_back()
    {
        var page = desk.Open();
        page.OpenPosition("Mid-break, open reds");
        Press(page, "link", "Break");
        page.Until(() => page.Path.Contains("/break"));
        Press(page, "link", "Safety");
        page.Until(() => page.Path.Contains("/safety"));
        page.Until(() => page.Driver.Title.Contains("Mid-break, open reds – Safety"));
        page.Driver.Navigate().Back();
        page.Until(() => page.Path.Contains("/break"));
        page.Find("plan-panel");
        // A deep link, with what is shown on the plan, in a browser that knows nothing of it.
        var position = page.Path.Split('/')[2];
        var other = desk.Open();
        other.GoTo($"/table/{position}/shot?view=there&fan=paces");
        other.Find("goal-stop");
        Assert.Equal("Mid-break, open reds", other.Text("position-name"));
        other.Until(() => other.Driver.FindElements(By.CssSelector("[data-fan]")).Count > 3);
        other.Driver.Navigate().GoToUrl($"{desk.Address}/nowhere/at/all");
        Assert.Contains("nothing at this address", other.Css(".place").Text);
    }

    [Fact]
    public void What_is_not_saved_asks_before_it_is_left()
    {
        var page = desk.Open();
        page.OpenPosition("Re-spotted black");
        page.Find("plan").SendKeys(Keys.ArrowRight);
        page.Find("unsaved");
        Press(page, "link", "Library");
        page.Role("searchbox", "Search the library").SendKeys(Keys.Control + "a" + Keys.Delete);
        Press(page, "button", new Regex("^Opening break"));
        Press(page, "button", "Leave without saving");
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=position-name]")).Any(e => e.Text == "Opening break"));
    }

    [Fact]
    public void A_kept_plan_is_found_in_the_library_by_words()
    {
        var page = desk.Open();
        page.OpenPosition("Last red to the colours");
        Press(page, "link", "Break");
        // As soon as the search has ended.
        page.Until(() => page.Find("keep-plan").Enabled);
        page.Find("keep-plan").Click();
        page.Until(() => page.HasNotice("kept with the position"));
        Press(page, "link", "Library");
        Press(page, "radio", new Regex("^Kept plans"));
        page.Role("searchbox", "Search the library").SendKeys(Keys.Control + "a" + Keys.Delete);
        page.Role("searchbox", "Search the library").SendKeys("last colours");
        Press(page, "link", new Regex("with “Last red to the colours”"));
        page.Until(() => page.Path.Contains("/break"));
    }

    [Fact]
    public void Inches_are_told_and_typed_where_they_are_liked()
    {
        var page = desk.Open();
        page.OpenPosition("Re-spotted black");
        Press(page, "link", "Settings");
        Press(page, "radio", "Inches");
        Press(page, "link", "Table");
        page.Until(() => page.Css("[aria-labelledby=ball-title]").Text.Contains("in", StringComparison.Ordinal));
        var up = page.Role("textbox", "Distance up the table, in");
        Assert.InRange(double.Parse(up.GetAttribute("value")!, System.Globalization.CultureInfo.InvariantCulture), 0, 141);
    }

    [Fact]
    public void On_a_phone_a_pot_is_read_set_up_and_played_by_the_fingers()
    {
        var page = desk.Open(390, 844, touch: true);
        page.OpenPosition("Mid-break, open reds");
        page.Tap(() => page.Role("link", "Read"));
        page.Tap(() => page.Css("[data-testid=read-list] tbody tr:nth-child(2)"));
        page.Tap(() => page.Role("link", "Shot"));
        page.Until(() => page.Text("cut").Contains('°'));
        var drawn = page.WhitePath;
        // The pace, dragged along its slider, in sight of the plan.
        page.Driver.ExecuteScript("document.querySelector('[data-testid=pace]').scrollIntoView({ block: 'center' })");
        page.DragByTouch(page.Slider("pace"), 60, 0);
        page.Until(() => page.WhitePath != drawn);
        var start = page.Ball("white");
        page.Tap(() => page.Find("play"));
        page.Until(() => page.Ball("white") != start);
        // A ball is dragged on the plan itself.
        page.Tap(() => page.Role("button", "Rewind"));
        page.DragByTouch(page.Css("[data-ball=white]"), 12, 30);
        page.Until(() => Math.Abs(page.Ball("white").X - start.X) > 100);
    }

    [Fact]
    public void On_a_phone_a_frame_is_written_down_by_taps()
    {
        var page = desk.Open(390, 844, touch: true);
        page.Reload();
        page.Tap(() => page.Role("link", "Frames"));
        page.Role("textbox", "Title of the frame").SendKeys("At the table side");
        page.Role("textbox", "First player").SendKeys("Tilda");
        page.Role("textbox", "Second player").SendKeys("Orrin");
        page.Tap(() => page.Role("button", "Start a frame"));
        page.Tap(() => page.Role("button", "1: potted the red"));
        page.Until(() => page.Text("score-0") == "1");
        page.Tap(() => page.Role("button", "5: potted the blue"));
        page.Until(() => page.Text("score-0") == "6");
        page.Tap(() => page.Role("button", "Undo"));
        page.Until(() => page.Text("score-0") == "1");
        page.Tap(() => page.Role("button", "Missed"));
        page.Until(() => page.Text("frame-on").Contains("Orrin", StringComparison.Ordinal));
    }
}
