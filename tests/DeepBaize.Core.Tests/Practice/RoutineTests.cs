using DeepBaize.Core.Geometry;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Practice;
using DeepBaize.Core.Practice.Shipped;
using DeepBaize.Core.Rules;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Tests.Practice;

/// <summary>The routines that come with the application, their rules, and the windows of their ladders.</summary>
public class RoutineTests
{
    private static readonly TableShape Shape = new(Conditions.Default);

    private static Observation Seen(Step step)
    {
        var layout = step.LayoutOn(Shape);
        var simulator = new Simulator(Shape);
        var record = new ShotRecord();
        step.StrokeOn(layout, Shape, Player.Default).Play(simulator, layout, record);
        return Observation.Of(record, simulator, layout, step.PotIn(layout));
    }

    public static TheoryData<string> Ids => [.. ShippedRoutines.All.Select(r => r.Id)];

    [Theory]
    [MemberData(nameof(Ids))]
    public void Played_just_as_it_is_meant_every_shipped_step_meets_its_rule_on_either_side(string id)
    {
        var routine = ShippedRoutines.Find(id)!.Checked(Shape);
        Assert.All([routine.Name, routine.Task, routine.Why, routine.LookFor], t => Assert.False(string.IsNullOrWhiteSpace(t)));
        foreach (var step in routine.Steps.Where(s => !s.IsRun))
        {
            Assert.True(step.IsDone(Seen(step)), step.Label);
            if (routine.BothSides)
                Assert.True(step.Mirrored.IsDone(Seen(step.Mirrored)), $"{step.Label}, other side");
        }
    }

    /// <summary>What can be practised, as players and coaches list it: common practice, no source.</summary>
    [Fact]
    public void Everything_that_is_usually_practised_is_there_once()
    {
        string[] usual =
        [
            "height",
            "pace-scale",
            "stop",
            "follow",
            "screw",
            "straight-gate",
            "straight-cushion",
            "straight-tip",
            "spin-ladder",
            "pace-ladder",
            "zones",
            "gate-after-pot",
            "red-back-to-white",
            "bare-cue",
            "line-up",
            "line-up-no-cushion",
            "black-off-its-spot",
            "colours-in-order",
            "last-red",
            "long-pots",
            "thin-pots",
            "into-the-pack",
            "safety-to-baulk",
            "escapes",
            "black-ball",
            "cannons",
        ];
        Assert.Equal(usual.Order(), ShippedRoutines.All.Select(r => r.Id).Order());
    }

    [Theory]
    [InlineData("spin-ladder")]
    [InlineData("pace-ladder")]
    public void Of_a_ladder_the_middle_of_each_window_meets_its_rung_its_edges_just_and_what_lies_beyond_does_not(string id)
    {
        var ladder = ShippedRoutines.Find(id)!;
        foreach (var step in ladder.Steps)
        {
            var window = Ladder.WindowOf(step, ladder.Knob!, Player.Default, Shape)!.Value;
            bool? At(double value) => step.IsDone(Seen(step with { Stroke = Ladder.With(step.Stroke, ladder.Knob!, value) }));
            Assert.True(At(window.Middle), $"{step.Label}: middle {window.Middle}");
            Assert.True(At(window.From) == true && At(window.To) == true, $"{step.Label}: edges {window}");
            // Unless the tip or the pace itself has no more.
            var isLimit = window.From < -1.56 || window.To > 1.56;
            Assert.True(isLimit || At(window.From - 0.01) == false || At(window.To + 0.01) == false, $"{step.Label}: beyond {window}");
            // What is shipped as meant is the middle, to the hundredth that a player can set.
            var meant = ladder.Knob == "height" ? step.Stroke.Height : step.Stroke.Pace;
            Assert.InRange(meant, window.Middle - 0.015, window.Middle + 0.015);
        }
    }

    [Theory]
    [InlineData("spin-ladder")]
    [InlineData("pace-ladder")]
    public void A_mirrored_ladder_has_the_same_windows(string id)
    {
        var ladder = ShippedRoutines.Find(id)!;
        foreach (var step in ladder.Steps)
        {
            var (laid, other) = (
                Ladder.WindowOf(step, ladder.Knob!, Player.Default, Shape)!.Value,
                Ladder.WindowOf(step.Mirrored, ladder.Knob!, Player.Default, Shape)!.Value
            );
            Assert.Equal(laid.From, other.From, 0.003);
            Assert.Equal(laid.To, other.To, 0.003);
        }
    }

    /// <summary>The lower the tip, the less the white runs on: common practice, no source.</summary>
    [Fact]
    public void The_heights_of_the_spin_ladder_fall_from_the_first_red_to_the_last_and_do_not_overlap()
    {
        var ladder = ShippedRoutines.Find("spin-ladder")!;
        var windows = ladder.Steps.Select(s => Ladder.WindowOf(s, "height", Player.Default, Shape)!.Value).ToList();
        for (var i = 1; i < windows.Count; i++)
            Assert.True(windows[i].To <= windows[i - 1].From + 1e-3, $"rung {i + 1}: {windows[i]} beside {windows[i - 1]}");
    }

    /// <summary>The line-up: thirteen or fourteen balls make fifty, all of them with blacks 147. Common practice, no source.</summary>
    [Fact]
    public void Of_the_line_up_fourteen_balls_with_blacks_make_fifty_and_all_of_them_147()
    {
        var balls = ShippedRoutines.Find("line-up")!.Steps[0].Balls;
        Assert.Equal(
            (15, 6),
            (balls.Count(b => b.Id.StartsWith("red", StringComparison.Ordinal)), balls.Count(b => b.Id[0] != 'r' && b.Id != "white"))
        );
        int Made(int count) => Enumerable.Range(0, count).Sum(i => i % 2 == 0 ? 1 : Values.Of(Ball.Black));
        Assert.True(Made(13) < 50 && Made(14) >= 50);
        var colours = Ball.Colours.Sum(Values.Of);
        Assert.Equal(147, 15 * (1 + Values.Of(Ball.Black)) + colours);
        var rule = ShippedRoutines.Find("line-up")!.Steps[0];
        Assert.True(rule.IsDone(new() { Score = Made(14) }));
        Assert.False(rule.IsDone(new() { Score = Made(13) }));
    }

    private static Step With(params Demand[] demands) =>
        new()
        {
            Label = "",
            Balls = [new("white", 1, 0.9), new("red-1", 2, 0.8), new("red-2", 2, 1)],
            Demands = demands,
        };

    private static Observation Along(params Vec2[] corners) =>
        new() { Way = [.. corners.Zip(corners.Skip(1)).Select(p => new Segment(p.First, p.Second))] };

    [Theory]
    [InlineData(2.5, 0.9, true)]
    [InlineData(1.9, 0.9, false)]
    [InlineData(2.5, 0.76, false)]
    public void Through_a_gate_is_between_its_posts_and_touches_neither(double x, double y, bool isThrough)
    {
        var step = With(
            new Demand
            {
                Kind = DemandKind.Gate,
                Ball = "red-1",
                Other = "red-2",
            }
        );
        Assert.Equal(isThrough, step.IsDone(Along(new(1, 0.9), new(x, y))));
    }

    [Theory]
    [InlineData(0.02, true)]
    [InlineData(0.05, false)]
    public void Back_on_the_tip_is_back_over_its_place(double beside, bool isBack)
    {
        var step = With(new Demand { Kind = DemandKind.BackOnTip, Within = 0.03 });
        Assert.Equal(isBack, step.IsDone(Along(new(1, 0.9), new(3, 0.9), new(0.5, 0.9 + beside), new(0.4, 0.9 + beside))));
        Assert.False(step.IsDone(Along(new(1, 0.9), new(3, 0.9))));
    }

    [Fact]
    public void What_nobody_has_seen_cannot_be_judged_and_what_was_said_stands_where_nothing_was_measured()
    {
        var step = With(new Demand { Kind = DemandKind.WhiteIn, Area = Area.Circle(2, 1, 0.2) });
        Assert.Null(step.IsDone(new()));
        Assert.True(step.IsDone(new() { Said = true }));
        Assert.False(step.IsDone(new() { Said = true, White = new(2.3, 1) }));
        Assert.True(step.IsDone(new() { Said = false, White = new(2.1, 1) }));
        Assert.False(step.IsDone(new() { Said = true, WhiteLost = true }));
    }

    /// <summary>Worked out by other strokes than those that chose: both told, both shown.</summary>
    [Theory]
    [InlineData("club", "screw", 0)]
    [InlineData("club", "long-pots", 0)]
    [InlineData("club", "zones", 0)]
    public void An_easier_version_is_done_by_about_seven_in_ten(string skill, string id, int number)
    {
        var (player, step) = (Player.OfSkill(skill), ShippedRoutines.Find(id)!.Steps[number]);
        var asItIs = ExpectedResult.Of(step, player, Shape, Workers.Shared()).Done;
        var easier = Variants.For(step, player, Shape, Workers.Shared())!;
        Assert.True(asItIs.Value < 0.6, $"as it is {asItIs.Value}");
        Assert.True(easier.Done.Value > asItIs.Value + 0.1, $"easier {easier.Done.Value}, as it is {asItIs.Value}");
        Assert.True(easier.Nearer > 0 || easier.Wider > 1);
        Assert.True(easier.Straighter >= -0.5, $"straighter by {easier.Straighter}");
        Assert.InRange(easier.Done.Value, 0.55, 0.82);
    }

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public void A_snooker_that_is_drawn_hides_the_red_and_can_be_escaped_by_its_cushions(int cushions)
    {
        var step = SnookerDraw.Of(7, cushions, Shape);
        var layout = step.LayoutOn(Shape);
        Assert.True(Snooker.IsSnookered(layout.White.At, layout.Balls, [layout.SlotOf(Ball.Red(1))]), "the red can be hit straight");
        var (simulator, record) = (new Simulator(Shape), new ShotRecord());
        step.StrokeOn(layout, Shape, Player.Default).Play(simulator, layout, record);
        var met = record
            .Events.TakeWhile(e => !e.IsOfWhiteWithBall)
            .Count(e => e is { Ball: 0, Kind: ShotEventKind.Cushion or ShotEventKind.Jaw });
        Assert.Equal(cushions, met);
        Assert.True(step.IsDone(Observation.Of(record, simulator, layout, null)));
        Assert.Equal(step.Balls, SnookerDraw.Of(7, cushions, Shape).Balls);
    }

    [Theory]
    [InlineData(15)]
    [InlineData(60)]
    [InlineData(240)]
    public void A_session_begins_with_a_warm_up_has_breaks_and_fits_its_time(int minutes)
    {
        var routines = ShippedRoutines.All.ToDictionary(r => r.Id, r => r.Routine);
        var played = new Dictionary<string, RoutineHistory>
        {
            ["stop"] = new(new(50, 50), new(2026, 11, 1, 0, 0, 0, TimeSpan.Zero)),
            ["follow"] = new(new(5, 50), new(2026, 11, 1, 0, 0, 0, TimeSpan.Zero)),
        };
        var plan = SessionPlan.For(minutes, routines, played);
        Assert.Equal("straight-tip", plan[0].Routine);
        Assert.InRange(plan.Sum(p => p.Minutes), Math.Min(minutes, 10), minutes);
        var (since, longest) = (0, 0);
        foreach (var part in plan)
        {
            since = part.Routine == SessionPlan.Break ? 0 : since + part.Minutes;
            longest = Math.Max(longest, since);
        }
        Assert.InRange(longest, 0, 45);
        var used = plan.Select(p => p.Routine).Where(r => r != SessionPlan.Break).ToList();
        Assert.Equal(used.Count, used.Distinct().Count());
        // What goes well comes after what was never played or goes badly.
        if (used.Contains("stop"))
            Assert.Contains("follow", used.Take(used.IndexOf("stop")));
    }

    /// <summary>Of the same shot a right-hander reaches one side, a left-hander the other: common practice, no source.</summary>
    [Fact]
    public void How_a_step_is_got_at_depends_on_the_hand_and_the_side_and_on_the_cushion()
    {
        var step = With(new Demand { Kind = DemandKind.MeetsFirst, Ball = "red-1" }) with
        {
            Balls = [new("white", 1.2, 0.9), new("red-1", 2, 0.95)],
            Stroke = new(Aim: 3.6),
        };
        var (right, left) = (Player.Default, Player.Default with { Hand = Hand.Left });
        var far = step with { Balls = [new("white", 1.8, 1.45), new("red-1", 1.85, 0.5)], Stroke = new(Aim: -87) };
        Assert.Equal(Circumstance.Of(far, right, Shape).Stance, Circumstance.Of(far.Mirrored, left, Shape).Stance);
        Assert.Equal(Circumstance.Of(far, left, Shape).Stance, Circumstance.Of(far.Mirrored, right, Shape).Stance);
        Assert.False(Circumstance.Of(step, right, Shape).ByCushion);
        var tight = step with { Balls = [new("white", 0.05, 0.9), new("red-1", 2, 0.95)] };
        Assert.True(Circumstance.Of(tight, right, Shape).ByCushion);

        var day = new DateTimeOffset(2026, 11, 23, 18, 0, 0, TimeSpan.Zero);
        var told = RoutineStatistics.Of(
            [
                .. Enumerable
                    .Range(0, 6)
                    .Select(i => new CountedAttempt(Guid.Empty, day.AddMinutes(i), 0, false, i < 2, [])
                    {
                        How = new(i % 2 == 0 ? Stance.Natural : Stance.Rest, i > 3),
                    }),
            ]
        );
        Assert.Equal([(Stance.Natural, 1, 3), (Stance.Rest, 1, 3)], told.Stances.Select(s => (s.Stance, s.Share.Done, s.Share.Of)));
        Assert.Equal([(2, 4), (0, 2)], told.Cushion.Select(s => (s.Done, s.Of)));
    }

    [Fact]
    public void Statistics_tell_best_typical_and_last_apart()
    {
        var day = new DateTimeOffset(2026, 11, 23, 18, 0, 0, TimeSpan.Zero);
        var (first, second) = (Guid.NewGuid(), Guid.NewGuid());
        var attempts = new List<CountedAttempt>();
        // Ten of ten on the first day, five of ten on the second, a week later.
        for (var i = 0; i < 10; i++)
            attempts.Add(new(first, day.AddMinutes(i), 0, false, true, []));
        for (var i = 0; i < 10; i++)
            attempts.Add(new(second, day.AddDays(7).AddMinutes(i), 0, i % 2 == 0, i % 2 == 1, i % 2 == 0 ? ["thick"] : []));
        var told = RoutineStatistics.Of(attempts);
        Assert.Equal((10, 5, 0.75), (told.BestTen.Done, told.LastTen.Done, told.Typical));
        Assert.Equal((10, "thick", 5), (told.LongestRun, told.Causes[0].Reason, told.Causes[0].Times));
        Assert.Equal([new DateOnly(2026, 11, 23), new DateOnly(2026, 11, 30)], RoutineStatistics.WeeksOf(attempts).Select(w => w.From));
        Assert.Equal(Progression.Worse, told.Better!.Verdict);
        Assert.Equal([(15, 15), (0, 5)], told.Sides.Select(s => (s.Done, s.Of)));
    }
}
