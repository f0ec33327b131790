using System.Globalization;
using System.Text.RegularExpressions;
using DeepBaize.Core.Table;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace DeepBaize.Browser.Tests;

/// <summary>
/// The plan: looked at closely, balls laid as if by hand, strokes that leave their line, guessed first, opened from a link.
/// </summary>
[Collection("desk")]
[BrowsersGoBack]
public class PlanTests(Desk desk)
{
    private static int Count(Page page, string testId) => page.Driver.FindElements(By.CssSelector($"[data-testid={testId}]")).Count;

    private static int Balls(Page page) => page.Driver.FindElements(By.CssSelector(".plan .balls > g[data-ball]")).Count;

    /// <summary>Where a ball lies, m.</summary>
    private static (double X, double Y) At(Page page, string ball)
    {
        var (x, y) = page.Ball(ball);
        return (x / 1000, (1778 - y) / 1000);
    }

    private static void IsAt(Page page, string ball, double x, double y, double within = 0.012) =>
        page.Until(() => Balls(page) > 0 && Math.Abs(At(page, ball).X - x) < within && Math.Abs(At(page, ball).Y - y) < within);

    private static bool IsMenuOpen(Page page) => page.Driver.FindElements(By.CssSelector(".el-dropdown-menu__item")).Any(i => i.Displayed);

    /// <summary>From the menu New, once an earlier one has closed: pressed while it fades, it would stay closed.</summary>
    private static void New(Page page, string what)
    {
        page.Until(() => !IsMenuOpen(page));
        page.Click(() => page.Find("new-table"));
        page.Click(() => page.Find(what));
    }

    private static readonly (string Kind, double X, double Y)[] Wanted =
    [
        ("white", 1.2, 0.6),
        ("red", 2.2, 0.5),
        ("red", 2.4, 0.9),
        ("red", 2.7, 1.3),
        ("pink", 2.0, 1.2),
        ("black", 3.1, 0.9),
    ];

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public void White_three_reds_pink_and_black_are_laid_from_nothing_in_twelve_actions(bool touch)
    {
        var page = touch ? desk.Open(390, 844, touch: true) : desk.Open();
        page.OpenPosition("Mid-break, open reds");
        var actions = 0;
        void Press(string testId)
        {
            actions++;
            if (touch)
                page.Tap(() => page.Find(testId));
            else
                page.Click(() => page.Find(testId));
        }
        Press("new-table");
        Press("new-empty");
        page.Says("laying-hint", "tap where the white goes");
        Assert.Equal(0, Balls(page));
        var kind = "white";
        for (var i = 0; i < Wanted.Length; i++)
        {
            if (Wanted[i].Kind != kind)
                Press($"rail-{kind = Wanted[i].Kind}");
            actions++;
            page.PressPlan(Wanted[i].X, Wanted[i].Y, touch);
            page.Until(() => Balls(page) == i + 1);
        }
        Assert.True(actions <= 12, $"{actions} actions");
        // The reds are numbered as they were laid.
        string[] ids = ["white", "red-1", "red-2", "red-3", "pink", "black"];
        for (var i = 0; i < ids.Length; i++)
            IsAt(page, ids[i], Wanted[i].X, Wanted[i].Y);
        page.Says("unsaved", "not saved");
    }

    [Fact]
    public void Balls_are_dragged_on_and_off_taken_together_by_a_ring_and_laid_in_a_row()
    {
        var page = desk.Open();
        page.OpenPosition("Mid-break, open reds");
        New(page, "new-empty");
        page.Says("laying-hint", "white");
        page.PressPlan(1.0, 0.4);
        page.Until(() => Balls(page) == 1);
        // From the rail onto the plan by a drag.
        var to = page.OnScreen(2.0, 0.5);
        new Actions(page.Driver)
            .MoveToElement(page.Find("rail-red"))
            .ClickAndHold()
            .MoveByOffset(12, -20)
            .MoveToLocation(to.X, to.Y)
            .Release()
            .Perform();
        page.Until(() => Balls(page) == 2);
        IsAt(page, "red-1", 2.0, 0.5);
        page.Click(() => page.Find("rail-red"));
        page.PressPlan(2.3, 0.66);
        page.Until(() => Balls(page) == 3);
        page.PressPlan(2.6, 0.5);
        page.Until(() => Balls(page) == 4);
        page.Click(() => page.Find("rail-red"));
        // A ring around the three reds, in the mode that draws one.
        page.Click(() => page.Find("lasso-mode"));
        page.DragPlan((1.8, 0.3), (2.3, 0.25), (2.8, 0.3), (2.8, 0.9), (2.3, 0.95), (1.8, 0.9));
        page.Says("laying-hint", "3 balls selected");
        page.Click(() => page.Find("together"));
        page.Click(() =>
            page.Driver.FindElements(By.CssSelector(".el-dropdown-menu__item")).First(i => i.Displayed && i.Text == "In a row")
        );
        IsAt(page, "red-2", 2.3, 0.5, 0.002);
        // Together they are moved, and into a pocket's mouth one of them is taken away; the others are numbered as they were laid.
        page.DragPlan((2.0, 0.5), (2.05, 0.7), (2.1, 0.9));
        IsAt(page, "red-3", 2.7, 0.9, 0.02);
        page.Keys(Keys.Escape);
        page.DragPlan((2.1, 0.9), (2.0, 1.2), (1.785, 1.845));
        page.Until(() => Balls(page) == 3);
        IsAt(page, "red-1", 2.4, 0.9, 0.02);
        IsAt(page, "red-2", 2.7, 0.9, 0.02);
        page.Click(() => page.Find("undo"));
        page.Until(() => Balls(page) == 4);
    }

    [Fact]
    public void A_position_is_mirrored_with_its_stroke_and_undo_brings_it_back()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Says("outcome", "top yellow-side pocket");
        var (x, y) = At(page, "pink");
        New(page, "mirror-along");
        IsAt(page, "pink", x, 1.778 - y, 0.001);
        page.Says("outcome", "top green-side pocket");
        New(page, "mirror-across");
        IsAt(page, "pink", 3.569 - x, 1.778 - y, 0.001);
        page.Says("outcome", "baulk green-side pocket");
        page.Click(() => page.Find("undo"));
        page.Click(() => page.Find("undo"));
        IsAt(page, "pink", x, y, 0.001);
        page.Says("outcome", "top yellow-side pocket");
    }

    [Fact]
    public void The_plan_is_looked_at_closer_by_wheel_keys_and_buttons_with_the_same_place_under_the_pointer()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Find("outcome");
        double Scale() => page.OnScreen(2, 1).X - page.OnScreen(1, 1).X;
        var whole = Scale();
        var at = page.OnScreen(2.4, 1.2);
        new Actions(page.Driver)
            .MoveToLocation(at.X, at.Y)
            .ScrollFromOrigin(
                new()
                {
                    Viewport = true,
                    XOffset = at.X,
                    YOffset = at.Y,
                },
                0,
                -500
            )
            .Perform();
        page.Until(() => Scale() > whole * 1.6);
        var now = page.OnScreen(2.4, 1.2);
        Assert.InRange(Math.Abs(now.X - at.X) + Math.Abs(now.Y - at.Y), 0, 3);
        // A ball is taken where it is seen now.
        var (x, y) = At(page, "pink");
        page.DragPlan((x, y), (x - 0.05, y), (x - 0.1, y));
        IsAt(page, "pink", x - 0.1, y);
        page.Find("plan").SendKeys("0");
        page.Until(() => Math.Abs(Scale() - whole) < 0.5);
        page.Find("plan").SendKeys("9");
        page.Until(() => Scale() > whole * 1.2);
        page.Click(() => page.Find("matters"));
        page.Until(() => Math.Abs(Scale() - whole) < 0.5);
        page.Click(() => page.Find("closer"));
        page.Until(() => Scale() > whole * 1.5);
    }

    [Fact]
    public void On_a_phone_the_table_stands_upright_on_nearly_half_of_the_height_and_a_glass_shows_what_the_thumb_covers()
    {
        var page = desk.Open(390, 844, touch: true);
        page.OpenPosition("Stun across for the pink");
        page.Find("outcome");
        Assert.True(page.Find("plan").Size.Height >= 0.45 * 844, $"{page.Find("plan").Size.Height} px high");
        var (baulk, top) = (page.OnScreen(0, 0.9), page.OnScreen(3.569, 0.9));
        Assert.True(baulk.Y - top.Y > 330 && Math.Abs(baulk.X - top.X) < 2, $"{baulk} {top}");
        // The yellow's side is at the right, as from baulk.
        Assert.True(page.OnScreen(0.737, 0.6).X > page.OnScreen(0.737, 1.2).X);
        var (x, y) = At(page, "white");
        var from = page.OnScreen(x, y);
        page.HoldByTouch(from, (from.X - 10, from.Y + 40));
        page.Until(() => Count(page, "glass") == 1);
        Assert.Contains("off the", page.Find("glass").Text, StringComparison.Ordinal);
        page.LetGo();
        page.Until(() => Count(page, "glass") == 0);
        page.Until(() => At(page, "white").X < x - 0.2);
        // The strike is changed beside it.
        var before = page.WhitePath;
        page.DragByTouch(page.Slider("quick-pace"), 0, -40);
        page.Until(() => page.WhitePath != before);
    }

    [Fact]
    public void Strokes_leave_their_line_say_what_a_change_did_and_stay_with_the_position()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Find("outcome");
        var plan = page.Find("plan");
        page.Click(() => page.Find("play"));
        page.Until(() => Count(page, "trial-row") == 1);
        page.Click(() => page.Role("button", "Rewind"));
        // Half a tip lower, a twentieth at a press.
        plan.SendKeys("ssssssssss");
        page.Says("changed", "half a tip lower");
        Assert.Contains("mm", page.Text("changed"), StringComparison.Ordinal);
        Assert.Equal(1, Count(page, "trial-line"));
        page.Click(() => page.Find("keep-line"));
        page.Until(() => Count(page, "trial-row") == 2);
        page.Click(() => page.Find("save"));
        page.Until(() => page.HasNotice("Saved"));
        page.Driver.Navigate().Refresh();
        page.Until(() => Count(page, "trial-row") == 2);
        // A line is the stroke again, and the other one is drawn then.
        var before = page.WhitePath;
        page.Click(() => page.Driver.FindElements(By.CssSelector("[data-testid=trial-row] .words"))[1]);
        page.Until(() => page.WhitePath != before);
        page.Until(() => Count(page, "trial-line") == 1);
        // Hidden, and cleared, and back by undo.
        page.Click(() => page.Driver.FindElements(By.CssSelector("[data-testid=trial-row] .eye"))[0]);
        page.Until(() => Count(page, "trial-line") == 0);
        page.Click(() => page.Find("clear-lines"));
        page.Until(() => Count(page, "trial-row") == 0);
        page.Click(() => page.Find("undo"));
        page.Until(() => Count(page, "trial-row") == 2);
    }

    [Fact]
    public void The_ring_is_dragged_to_where_the_white_really_stopped_and_that_is_kept()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Find("outcome");
        double Number(string name) => double.Parse(page.Css(".rest-white").GetAttribute(name)!, CultureInfo.InvariantCulture);
        page.Until(() => page.Driver.FindElements(By.CssSelector(".rest-white")).Count == 1);
        var (x, y) = (Number("cx") / 1000, (1778 - Number("cy")) / 1000);
        page.DragPlan((x, y), (x + 0.1, y), (x + 0.2, y));
        page.Until(() => page.HasNotice("mm from where this stroke ends"));
        page.Until(() => Count(page, "seen-mark") == 1);
        page.Says("trials", "Stopped");
        // A place that is touched says the same.
        page.Click(() => page.Find("it-stopped"));
        page.PressPlan(x - 0.3, y + 0.1);
        page.Until(() => Count(page, "seen-mark") == 1 && Regex.IsMatch(page.Text("trials"), "Stopped 3[0-3][0-9] mm from there"));
        page.Says("unsaved", "not saved");
    }

    [Fact]
    public void Where_the_white_stops_is_guessed_before_it_is_shown_and_the_guess_is_kept()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Find("outcome");
        page.Click(() => page.Find("guess-view"));
        page.Says("covered", "mark where the white stops");
        page.Until(() => page.WhitePath.Replace("|", "").Length == 0);
        Assert.False(page.Find("guess-show").Enabled);
        page.PressPlan(2.5, 0.9);
        page.Until(() => Count(page, "guess-mark") == 1);
        page.Click(() => page.Find("guess-show"));
        page.Says("guess-task", "mm off");
        page.Says("outcome", "pocket");
        page.Says("guess-better", "The last of");
        // By three routes, on a layout that is drawn; one mark is where the blue lies, which need not stay there.
        page.Click(() => page.Find("guess-another"));
        page.Until(() => page.Text("position-name").StartsWith("Guess ", StringComparison.Ordinal));
        page.Click(() => page.Find("guess-routes"));
        page.Says("guess-task", "by stun");
        foreach (var (x, y) in new[] { (1.5, 0.5), (Dimensions.Spot(Ball.Blue).X, Dimensions.Spot(Ball.Blue).Y), (2.5, 1.3) })
            page.PressPlan(x, y);
        page.Until(() => Count(page, "guess-mark") == 3);
        page.Click(() => page.Find("guess-show"));
        page.Says("guess-task", "on the average of the three");
    }

    [Fact]
    public void A_link_opens_the_position_with_its_stroke_anywhere_and_a_damaged_one_says_so()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Says("outcome", "top yellow-side pocket");
        page.Driver.ExecuteScript("navigator.clipboard.writeText = async (text) => { window.copied = text }");
        page.Click(() => page.Find("copy-link"));
        page.Until(() => page.Driver.ExecuteScript("return window.copied") is string);
        var link = (string)page.Driver.ExecuteScript("return window.copied")!;
        Assert.Contains("/table/now/shot#p1.", link, StringComparison.Ordinal);
        Assert.InRange(link.Length, 100, 700);
        var outcome = page.Text("outcome");

        var elsewhere = desk.Open();
        elsewhere.Driver.Navigate().GoToUrl(link);
        elsewhere.Until(() => elsewhere.Text("position-name") == "Stun across for the pink" && elsewhere.Text("outcome") == outcome);
        elsewhere.Says("unsaved", "not saved");
        elsewhere.Until(() => elsewhere.HasNotice("came with the link"));
        Assert.DoesNotContain("#", elsewhere.Driver.Url, StringComparison.Ordinal);
        elsewhere.Driver.Navigate().GoToUrl("about:blank");
        elsewhere.Driver.Navigate().GoToUrl(link[..^40]);
        elsewhere.Until(() => elsewhere.HasNotice("This link is damaged"));
    }

    [Fact]
    public void Positions_and_routines_are_known_by_their_plans_and_a_figure_leads_to_its_paragraph()
    {
        var page = desk.Open();
        page.Visit("/library");
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=library] .plan-picture")).Count >= 12);
        var first = page.Css("[data-testid=library] li .plan-picture");
        Assert.NotEmpty(first.FindElements(By.CssSelector(".way")));
        page.Visit("/practice");
        page.Until(() => Count(page, "lately") > 3);
        Assert.Matches("[0-9]+ of 10|best [0-9]+", page.Find("lately").Text);
        Assert.NotEmpty(page.Css("[data-testid=routine-zones]").FindElements(By.CssSelector(".area")));
        page.GoTo("/table/now/read");
        page.Click(() => page.Css("[data-testid=read-list] [data-testid=handbook-link]"));
        page.Until(() => page.Path == "/handbook");
        page.Until(() => page.Driver.SwitchTo().ActiveElement().GetAttribute("id") == "chance");
        page.Says("handbook", "How it is found.");
    }

    [Fact]
    public void A_plan_is_taken_to_the_table_stroke_by_stroke_by_a_thumb()
    {
        var page = desk.Open(390, 844, touch: true);
        page.OpenPosition("Colours on their spots");
        page.Tap(() => page.Find("plan-break"));
        page.Wait(TimeSpan.FromSeconds(90)).Until(_ => Count(page, "stop-plan") == 0 && Count(page, "plan-glance") == 1);
        page.Tap(() => page.Find("plan-glance"));
        page.Says("glance", "1. Yellow");
        page.Until(() =>
            page.Text("glance-aim").Contains("ball", StringComparison.OrdinalIgnoreCase) || page.Text("glance-aim").Contains("ull")
        );
        page.Tap(() => page.Find("glance-next"));
        page.Says("glance", "2. Green");
        page.Tap(() => page.Find("reminders-on"));
        page.Says("glance", "Head and body still");
        // It is there after a reload, and goes back to the plan.
        page.Driver.Navigate().Refresh();
        page.Says("glance", "2. Green");
        page.Tap(() => page.Find("glance-back"));
        page.Until(() => page.Path.Contains("/break", StringComparison.Ordinal));
    }

    [Fact]
    public void Ones_own_stroke_becomes_the_next_table()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Says("outcome", "Red 1 in the top yellow-side pocket");
        var balls = Balls(page);
        page.Click(() => page.Find("go-on"));
        page.Until(() => Balls(page) == balls - 1);
        page.Click(() => page.Find("undo"));
        page.Until(() => Balls(page) == balls);
    }

    [Fact]
    public void Choices_are_drawn_together_and_the_verdict_waits_until_somebody_has_chosen()
    {
        var page = desk.Open();
        page.OpenPosition("Mid-break, open reds");
        page.Click(() => page.Find("compare-strokes"));
        page.Click(() => page.Find("lay-choice"));
        page.Find("plan").SendKeys("+++++");
        page.Until(() => page.Find("lay-choice").Enabled);
        page.Click(() => page.Find("lay-choice"));
        page.Click(() => page.Find("cover-verdict"));
        page.Find("which-one");
        page.Until(() => Count(page, "trial-line") >= 1);
        Assert.Equal(0, Count(page, "compare-table"));
        page.Wait(TimeSpan.FromSeconds(60)).Until(_ => Count(page, "stop-compare") == 0);
        page.Click(() => page.Find("pick-A"));
        page.Says("compare-verdict", "You chose A");
        page.Until(() => Count(page, "compare-table") == 1 && page.Find("compare-sheet").Enabled);
    }
}
