using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace DeepBaize.Browser.Tests;

/// <summary>The stroke with one thing changed, and what else is seen of the cut: by mouse and by touch.</summary>
[Collection("second desk")]
[BrowsersGoBack]
public class WhatIfTests(SecondDesk desk)
{
    private static int Fanned(Page page) => page.Driver.FindElements(By.CssSelector("[data-fan]")).Count;

    private static IReadOnlyList<IWebElement> Rows(Page page) =>
        page.Driver.FindElements(By.CssSelector("[data-testid=fan-table] tbody tr"));

    [Fact]
    public void A_fan_has_steps_of_ones_own_is_told_in_a_table_and_a_line_is_set_up()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Click(() => page.Find("what-if"));
        page.Until(() => Rows(page).Count >= 3 && Fanned(page) == Rows(page).Count);
        page.Choose("fan-step", "0.1");
        page.Until(() => Rows(page).Count == 5);
        Assert.Contains("Goes in", page.Text("fan-table"));
        // A line that is pointed at is drawn strong, and a press sets it up.
        new Actions(page.Driver)
            .MoveToElement(Rows(page)[0])
            .Perform();
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-fan].pointed")).Count == 1);
        var before = page.WhitePath;
        page.Click(() => Rows(page)[0].FindElement(By.CssSelector(".words")));
        page.Until(() => page.WhitePath != before);
        page.Find("undo").Click();
        page.Until(() => page.WhitePath == before);
    }

    [Fact]
    public void With_the_same_aim_side_misses_and_the_table_says_by_how_much()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Click(() => page.Find("what-if"));
        page.Click(() => page.Find("if-sides"));
        page.Until(() => Rows(page).Count == 2);
        Assert.DoesNotContain("issed", page.Text("fan-table"));
        page.Click(() => page.Find("same-aim"));
        page.Says("fan-table", "° off");
        page.Until(() => page.Driver.FindElements(By.CssSelector(".aims .pots")).Count == 2);
    }

    [Fact]
    public void A_safety_without_a_pot_has_its_fan_and_its_table_by_pace()
    {
        var page = desk.Open();
        page.OpenPosition("Opening break");
        page.Click(() => page.Find("what-if"));
        page.Click(() => page.Find("if-paces"));
        page.Until(() => Fanned(page) == 4);
        Assert.Contains("red", page.Text("fan-table"));
        page.Click(() => page.Find("what-paces"));
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=pace-table] tbody tr")).Count == 8);
    }

    [Fact]
    public void A_ladder_of_ones_own_becomes_a_routine_with_a_rung_for_each_ball_or_gap_by_touch()
    {
        var page = desk.Open(1024, 768, touch: true);
        page.OpenPosition("Mid-break, open reds");
        page.Tap(() => page.Find("what-if"));
        page.Tap(() => page.Find("what-ladder"));
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=ladder] li")).Count > 2);
        Assert.Contains("tips", page.Text("ladder"));
        page.Tap(() => page.Find("practise-ladder"));
        page.Tap(() => page.Find("keep-routine"));
        page.Until(() => page.Path.StartsWith("/practice/routines/", StringComparison.Ordinal));
    }

    [Fact]
    public void A_thin_pot_has_its_chart_and_a_cell_is_set_up()
    {
        var page = desk.Open();
        page.OpenPosition("A thin cut on the blue");
        page.Click(() => page.Find("what-if"));
        page.Click(() => page.Find("what-chart"));
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=pot-chart] [role=cell]")).Count == 35);
        page.Find("chart-places");
        var before = page.WhitePath;
        page.Click(() => page.Driver.FindElements(By.CssSelector("[data-testid=pot-chart] [role=cell] .words"))[5]);
        page.Until(() => page.WhitePath != before);
    }

    [Fact]
    public void What_is_seen_of_the_ball_the_cue_from_the_side_and_the_spin_are_there()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Says("seen", "it pots as");
        page.Click(() => page.Find("why-aim"));
        page.Says("allowance-parts", "At pocket");
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=side-pictures] figure")).Count == 5);
        page.Click(() => page.Find("from-the-side"));
        page.Says("side-view", "bridge");
        page.Click(() => page.Find("spin"));
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=spins] > g")).Count >= 3);
    }

    [Fact]
    public void The_white_is_asked_through_a_gap_without_a_cushion_and_two_goals_are_joined()
    {
        var page = desk.Open();
        page.OpenPosition("Mid-break, open reds");
        page.Click(() => page.Find("put-it-there"));
        page.Click(() => page.Find("goal-more"));
        page.Choose("goal-ball", "red-4");
        page.Choose("goal-other", "black");
        page.Find("wanted");
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=way]")).Count > 0);
        page.Click(() => page.Find("no-cushion"));
        page.Until(() =>
            page.Driver.FindElements(By.CssSelector("[data-testid=way]")).Count > 0
            && page.Css("[data-testid=way]").Text.Contains("no cushion", StringComparison.Ordinal)
        );
        page.Click(() => page.Find("add-goal"));
        page.Find("second-stop");
    }

    [Fact]
    public void Where_the_white_really_stopped_says_what_to_change()
    {
        var page = desk.Open();
        page.OpenPosition("Stun across for the pink");
        page.Find("arrival");
        page.Click(() => page.Driver.FindElements(By.CssSelector("button")).First(b => b.Text == "It stopped here"));
        page.PressPlan(0.63, 0.62);
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=adjustment]")).Count == 1);
        Assert.Matches("It was|usual spread|No stroke near", page.Text("adjustment"));
        // Played again and again, with what else was seen of it: what the attempts have in common.
        foreach (var (x, y) in new[] { (0.66, 0.6), (0.61, 0.64) })
        {
            page.Click(() => page.Find("played-again"));
            page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=adjustment]")).Count == 0);
            page.PressPlan(x, y);
            page.Find("adjustment");
        }
        page.Says("verdict", "Over 3 attempts");
        page.Click(() => page.Find("missed-thick"));
        page.Until(() => page.Find("missed-thick").GetAttribute("aria-pressed") == "true");
        page.Says("trials", "3 attempts");
    }

    [Fact]
    public void A_chosen_ball_has_its_ways_round_the_cushions_and_an_escape_its_family()
    {
        var page = desk.Open();
        page.OpenPosition("Snookered behind the brown");
        page.Click(() => page.Find("decide"));
        page.Choose("escape-ball", "red-1");
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=escape-way]")).Count > 1);
        page.Click(() =>
            page
                .Driver.FindElements(By.CssSelector("[data-testid=escape-way] .words"))
                .First(w => w.Text.Contains("cushion", StringComparison.Ordinal) && !w.Text.Contains("jaw", StringComparison.Ordinal))
        );
        page.Click(() => page.Find("family"));
        page.Says("family-words", "From anywhere in the band");
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=family-band] rect")).Count > 3);
        page.Click(() => page.Find("keep-family"));
        page.Css(".el-message-box input").SendKeys("Round the side" + Keys.Enter);
        page.Until(() => page.Driver.FindElements(By.CssSelector("[data-testid=forget-family]")).Count == 1);
        // After a reload it is found again from here.
        page.Reload();
        page.OpenPosition("Snookered behind the brown");
        page.Click(() => page.Find("decide"));
        page.Says("family-here", "Round the side");
    }
}
