using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;
using OpenQA.Selenium;

namespace DeepBaize.Browser.Tests;

[Collection("desk")]
[BrowsersGoBack]
public class WholeSliceTests(Desk desk)
{
    [Fact]
    public void From_a_demo_position_to_a_saved_one_found_again()
    {
        var page = desk.Open();
        page.OpenPosition("Last red to the colours");
        var drawn = page.WhitePath;

        // Drag the cue ball: it moves, and the path with it.
        var before = page.Ball("white");
        page.Drag(page.Css("[data-ball=white]"), 60, 25);
        page.Until(() => page.WhitePath != drawn && Math.Abs(page.Ball("white").X - before.X) > 150);
        Assert.True(page.Find("unsaved").Displayed);
        drawn = page.WhitePath;

        // Choose a pot: cut and potting line appear, the aim changes.
        page.Choose("object-ball", "blue");
        page.Choose("pocket", "yellow");
        page.Until(() => page.WhitePath != drawn && page.Text("cut").Contains('°') && page.Text("events").Contains("blue"));
        drawn = page.WhitePath;

        // Change the pace by the keyboard on its slider.
        var pace = page.Slider("pace");
        var figures = page.Text("pace-figures");
        pace.SendKeys(Keys.ArrowRight + Keys.ArrowRight + Keys.ArrowRight + Keys.ArrowRight + Keys.ArrowRight);
        page.Until(() => page.WhitePath != drawn && page.Text("pace-figures") != figures);
        page.Says("pace-figures", "table lengths");

        // Save as, reload, find it again.
        page.More("Save as");
        page.TypeName("Blue with a nudge");
        page.Until(() =>
            page.Text("position-name") == "Blue with a nudge"
            && page.Driver.FindElements(By.CssSelector("[data-testid=unsaved]")).Count == 0
        );
        var white = page.Ball("white");
        page.Driver.ExecuteScript("sessionStorage.clear(); localStorage.clear()");
        page.Reload();
        page.OpenPosition("Blue with a nudge");
        page.Until(() => page.Text("cut").Contains('°'));
        Assert.Equal(white, page.Ball("white"));
    }

    [Fact]
    public void Playback_runs_to_the_end_and_sets_up_again()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Until(() => page.WhitePath.Length > 20);
        var start = page.Ball("white");
        page.Find("play").Click();
        page.Until(() => page.Ball("white") != start);
        page.Slider("scrubber").SendKeys(Keys.End);
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-ball=red-1]")).Count == 0); // potted
        page.Slider("scrubber").SendKeys(Keys.Home);
        page.Until(() => page.Ball("white") == start && page.Driver.FindElements(By.CssSelector("[data-ball=red-1]")).Count == 1);
    }

    [Fact]
    public void The_keyboard_nudges_by_a_millimetre_and_undo_takes_it_back()
    {
        var page = desk.Open();
        page.OpenPosition("Re-spotted black");
        var start = page.Ball("white");
        page.Find("plan").SendKeys(Keys.ArrowRight);
        page.Until(() => Math.Abs(page.Ball("white").X - start.X - 1) < 0.01);
        page.Find("plan").SendKeys(Keys.Shift + Keys.ArrowUp);
        page.Until(() => Math.Abs(page.Ball("white").Y - start.Y + 10) < 0.01);
        page.Find("undo").Click();
        page.Until(() => Math.Abs(page.Ball("white").Y - start.Y) < 0.01);
        page.Find("undo").Click();
        page.Until(() => page.Ball("white") == start);
        page.Find("redo").Click();
        page.Until(() => Math.Abs(page.Ball("white").X - start.X - 1) < 0.01);
    }

    [Fact]
    public void A_dragged_ball_slides_round_another_and_never_overlaps()
    {
        var page = desk.Open();
        page.OpenPosition("Re-spotted black");
        var black = page.Ball("black");
        var scale = ((IJavaScriptExecutor)page.Driver).ExecuteScript(
            "return document.querySelector('[data-testid=plan]').getScreenCTM().a"
        );
        var (dx, dy) = (
            (black.X - page.Ball("white").X) * Convert.ToDouble(scale),
            (black.Y - page.Ball("white").Y) * Convert.ToDouble(scale)
        );
        page.Drag(page.Css("[data-ball=white]"), (int)dx, (int)dy);
        page.Until(() => Math.Abs(page.Ball("white").X - black.X) < 60);
        var white = page.Ball("white");
        Assert.Equal(52.5, Math.Sqrt(Math.Pow(white.X - black.X, 2) + Math.Pow(white.Y - black.Y, 2)), 0.05);
    }

    [Fact]
    public void A_figure_out_of_range_is_refused_beside_its_control_with_the_range()
    {
        var page = desk.Open();
        page.OpenPosition("Re-spotted black");
        var input = page.Css("input[aria-label='Pace']");
        input.SendKeys(Keys.Control + "a");
        input.SendKeys("14" + Keys.Enter);
        Assert.Contains("1.0 to 10.0", page.Css(".figure-field [role=alert]").Text);
        input.SendKeys(Keys.Escape);
        page.Until(() => page.Driver.FindElements(By.CssSelector(".figure-field [role=alert]")).Count == 0);
    }

    [Fact]
    public void Other_conditions_change_the_shot_and_a_preset_takes_them_back()
    {
        var page = desk.Open();
        page.OpenPosition("Re-spotted black");
        page.Until(() => page.WhitePath.Length > 20);
        var drawn = page.WhitePath;
        page.More("Conditions");
        page.Click(() => page.Driver.FindElement(By.CssSelector(".presets label:nth-child(3)")));
        page.Until(() => page.WhitePath != drawn);
        page.Click(() => page.Driver.FindElement(By.CssSelector(".presets label:nth-child(1)")));
        page.Until(() => page.WhitePath == drawn);
    }
}
