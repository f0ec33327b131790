using DeepBaize.Core.Advice.Compare;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Tests.Advice;

/// <summary>Strokes beside one another. That their verdicts agree with long play-outs is measured by a command: docs/compare.md.</summary>
[Trait("Speed", "Slow")]
public class CompareTests
{
    private static readonly TableShape Shape = new(Conditions.Default);
    private static readonly Player County = Player.OfSkill("county");

    /// <summary>A red near the top pocket, the black on its spot, more reds in the open.</summary>
    private static readonly Situation Table = Situation.Create(
        Layout.OfRest([
            new(Ball.White, 2.63, 0.62),
            .. Rack.Colours(),
            new(Ball.Red(1), 2.98, 0.47),
            new(Ball.Red(2), 3.05, 1.25),
            new(Ball.Red(3), 2.55, 1.20),
        ]),
        new()
    );

    private static ComparedStroke Pot(string id, double height, double pace)
    {
        var cut = Cut.Of(Table.Layout, new(Table.Layout.SlotOf(Ball.Red(1)), Pocket.YellowTop), Shape);
        var stroke = new Stroke(cut.AimDegrees, 0, height, pace, 3);
        return new(id, Table, stroke with { AimDegrees = PotAim.Find(Table.Layout, cut, stroke, Shape)!.Value }, cut.Pot, Ball.Red(1));
    }

    private static Comparison Solve(params ComparedStroke[] strokes) =>
        Comparer.Solve(strokes, County, County, Shape, Thoroughness.Gate(2));

    private static ComparedDifference Between(Comparison found, string a, string b) =>
        found.Differences.Single(d => (d.Better == a && d.Other == b) || (d.Better == b && d.Other == a));

    [Fact]
    public void A_stroke_beside_itself_is_level_with_no_difference()
    {
        var found = Solve(Pot("one", 0, 4), Pot("other", 0, 4));
        var difference = Between(found, "one", "other");
        Assert.True(difference.IsLevel);
        Assert.Equal(0, difference.By.Value);
        Assert.Equal(0, difference.By.Error);
        Assert.Equal(found.Columns[0].Value, found.Columns[1].Value);
    }

    [Fact]
    public void The_error_of_a_difference_is_smaller_than_the_errors_added_and_its_parts_add_up()
    {
        var found = Solve(Pot("soft", 0, 3.5), Pot("firm", 0.3, 4.5));
        var difference = Between(found, "soft", "firm");
        var (soft, firm) = (found.Columns.Single(c => c.Stroke.Id == "soft"), found.Columns.Single(c => c.Stroke.Id == "firm"));
        Assert.True(difference.By.Error < soft.Value.Error + firm.Value.Error);
        Assert.Equal(Math.Abs(soft.Value.Value - firm.Value.Value), difference.By.Value, 9);
        var parts = difference.ByChance + difference.ByPosition + difference.ByLeave;
        Assert.Equal(difference.By.Value, parts, 3 * (soft.Value.Error + firm.Value.Error));
    }

    [Fact]
    public void A_pot_that_follows_the_white_in_is_the_worse_one_for_what_it_leaves()
    {
        // Aimed at nothing, the other stroke is a foul: the better of the two is plain, and by its chance.
        var foul = new ComparedStroke("foul", Table, new(180, 0, 0, 3, 3), null, null);
        var found = Solve(Pot("pot", 0, 4), foul);
        var difference = Between(found, "pot", "foul");
        Assert.Equal("pot", difference.Better);
        Assert.False(difference.IsLevel);
        Assert.Equal(1, found.Columns.Single(c => c.Stroke.Id == "foul").Odds.Foul.Value, 0.02);
        Assert.Null(found.Columns.Single(c => c.Stroke.Id == "foul").IfScores);
        Assert.True(difference.ByChance > 0);
    }

    [Fact]
    public void Small_mistakes_move_the_white_and_are_told_for_each_knob_that_can_be_turned()
    {
        var found = Solve(Pot("low", -1.5, 4), Pot("plain", 0, 4));
        var (low, plain) = (found.Columns[0], found.Columns[1]);
        Assert.Equal(6, plain.Nudges.Count);
        // A quarter of a tip lower than a tip and a half is off the ball.
        Assert.DoesNotContain(low.Nudges, n => n.Nudge == Nudge.Lower);
        foreach (var nudge in plain.Nudges.Where(n => n.Nudge is Nudge.Harder or Nudge.Softer or Nudge.Higher or Nudge.Lower))
            Assert.True(nudge.White!.Value.DistanceTo(plain.Drawing.White!.Value) > 0.02, $"{nudge.Nudge}");
    }

    [Fact]
    public void The_advice_joins_as_a_column_unless_it_is_one_of_the_strokes()
    {
        var found = Solve(Pot("one", 0, 4), new("away", Table, new(100, 0, 0, 2, 3), null, null));
        Assert.Equal(Comparer.AdviceId, found.Advice);
        Assert.Equal(3, found.Columns.Count);
        var advice = found.Columns[2].Stroke;
        Assert.Equal(3, found.Order.Count);
        // Asked with the advice's own stroke, it is recognised.
        var again = Solve(advice with { Id = "mine" }, Pot("one", 0, 4));
        Assert.Equal("mine", again.Advice);
        Assert.Equal(2, again.Columns.Count);
    }

    [Fact]
    public void Though_the_advice_joins_late_each_difference_is_one_between_the_same_strokes()
    {
        // Two that are nearly alike have been played on for long by then, and the advice is soon apart from both.
        var found = Solve(Pot("one", -1, 5), Pot("other", -1, 5.05));
        Assert.Equal(Comparer.AdviceId, found.Advice);
        var values = found.Columns.ToDictionary(c => c.Stroke.Id, c => c.Value.Value);
        Assert.All(found.Differences, d => Assert.Equal(values[d.Better] - values[d.Other], d.By.Value, 9));
    }

    [Fact]
    public void The_answer_does_not_depend_on_the_number_of_cores()
    {
        Comparison With(int cores) =>
            Comparer.Solve([Pot("a", 0.5, 4), Pot("b", -0.5, 4)], County, County, Shape, Thoroughness.Gate(cores));
        var (one, two) = (With(1), With(2));
        Assert.Equal(one.Columns.Select(c => c.Value), two.Columns.Select(c => c.Value));
        Assert.Equal(one.Differences, two.Differences);
    }

    [Theory]
    [InlineData(1)]
    [InlineData(5)]
    public void Two_to_four_strokes_are_compared(int count)
    {
        var strokes = Enumerable.Range(0, count).Select(i => Pot($"{i}", 0, 3 + 0.3 * i)).ToArray();
        Assert.Equal("choices.length", Assert.Throws<InputException>(() => Solve(strokes)).Errors[0].Field);
    }
}
