using System.Text.Json.Serialization;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Practice;

/// <summary>A ball of a layout: its id, and its centre in m.</summary>
public sealed record LaidBall(string Id, double X, double Y)
{
    /// <summary>Returns a ball at a place, m.</summary>
    public static LaidBall Of(Ball ball, double x, double y) => new(ball.Id, x, y);

    /// <summary>Returns a ball at a place, m.</summary>
    public static LaidBall Of(PlacedBall ball) => new(ball.Ball.Id, ball.X, ball.Y);
}

/// <summary>A stroke that is meant, in the player's units.</summary>
/// <param name="Aim">Degrees counter-clockwise from straight up the table; where there is a pot, it is aimed at that instead.</param>
/// <param name="Side">Tips.</param>
/// <param name="Height">Tips.</param>
/// <param name="Elevation">Of the butt, degrees; null as the cue lies.</param>
public sealed record MeantStroke(
    double Aim = 0,
    double Side = 0,
    double Height = 0,
    double Pace = 4,
    double? Elevation = null,
    MeantPot? Pot = null,
    bool Free = false
);

/// <summary>One thing to do in a routine: balls, a stroke as it is meant, and what is asked of it.</summary>
public sealed record Step
{
    /// <summary>Largest number of letters of a label.</summary>
    public const int MaxLabel = 120;

    /// <summary>What is different here: "pace 3", "1.2 m", "third red".</summary>
    public required string Label { get; init; }

    /// <summary>The balls as they are laid.</summary>
    public required IReadOnlyList<LaidBall> Balls { get; init; }

    /// <summary>The stroke that is meant; null if it is left to the player.</summary>
    public MeantStroke Stroke { get; init; } = new();

    /// <summary>What has to come true for the attempt to count as done.</summary>
    public required IReadOnlyList<Demand> Demands { get; init; }

    /// <summary>Whether an attempt met all that was asked; null if that cannot be told.</summary>
    public bool? IsDone(Observation seen)
    {
        bool? all = true;
        foreach (var demand in Demands)
            switch (demand.IsMet(seen, Balls))
            {
                case false:
                    return false;
                case null:
                    all = null;
                    break;
                default:
                    break;
            }
        return all;
    }

    /// <summary>
    /// Whether an attempt counts as done: what cannot be told counts as it was said, and what was not said either was not done. The page
    /// judges by the same cases (tests/cases/counted-attempts.json), so that a count does not change when it is sent.
    /// </summary>
    public bool Counts(Observation seen) => IsDone(seen) ?? seen.Said ?? false;

    /// <summary>Whether it is a run, which ends by itself and has a score, and not one stroke.</summary>
    [JsonIgnore]
    public bool IsRun => Demands.Any(d => d.Kind == DemandKind.Score);

    /// <summary>Returns this step mirrored to the other side of the table.</summary>
    [JsonIgnore]
    public Step Mirrored =>
        this with
        {
            Balls = [.. Balls.Select(b => new LaidBall(TableMirror.OtherSide.Name(b.Id)!, b.X, Dimensions.Width - b.Y))],
            Stroke = Stroke with
            {
                Aim = -Stroke.Aim,
                Side = -Stroke.Side,
                Pot = Stroke.Pot is { } pot
                    ? pot with
                    {
                        Ball = TableMirror.OtherSide.Name(pot.Ball)!,
                        Pocket = TableMirror.OtherSide.Name(pot.Pocket)!,
                        Through = TableMirror.OtherSide.Name(pot.Through),
                        Off = TableMirror.OtherSide.Name(pot.Off),
                    }
                    : null,
            },
            Demands = [.. Demands.Select(d => d.Mirrored)],
        };

    /// <summary>The balls as the core knows them.</summary>
    /// <exception cref="InputException">They cannot lie so.</exception>
    public Layout LayoutOn(TableShape shape, string path = "balls") =>
        Layout.Create([.. Balls.Select(b => ((string?)b.Id, b.X, b.Y))], shape, path);

    /// <summary>The pot that is meant, in a layout's slots.</summary>
    /// <exception cref="InputException">There is no such ball or pocket.</exception>
    public Pot? PotIn(Layout layout, string path = "stroke.pot") => Stroke.Pot?.In(layout, path);

    /// <summary>The stroke as it is played: aimed at its pot, with the butt as the cue lies.</summary>
    /// <exception cref="InputException">A figure out of range.</exception>
    public Stroke StrokeOn(Layout layout, TableShape shape, Player player, MeantStroke? instead = null)
    {
        var meant = instead ?? Stroke;
        var stroke = new Stroke(meant.Aim, meant.Side, meant.Height, meant.Pace, meant.Elevation ?? player.NaturalElevation);
        stroke.ToStrike();
        var pot = PotIn(layout);
        if (pot is not null && !meant.Free)
        {
            var cut = Cut.Of(layout, pot, shape);
            stroke = stroke with { AimDegrees = PotAim.Find(layout, cut, stroke, shape) ?? cut.AimDegrees };
        }
        return meant.Elevation is null ? stroke with { ElevationDegrees = Reach.ButtFor(layout, stroke, player) } : stroke;
    }
}

/// <summary>What a routine trains; they are listed by it.</summary>
public enum RoutineFamily
{
    /// <summary>Straight cueing.</summary>
    Cueing,

    /// <summary>Pace.</summary>
    Pace,

    /// <summary>Stun, screw, follow and side.</summary>
    Spin,

    /// <summary>Position play.</summary>
    Position,

    /// <summary>Potting.</summary>
    Potting,

    /// <summary>Runs and clearances.</summary>
    Breaks,

    /// <summary>Safety and escapes.</summary>
    Safety,

    /// <summary>The user's own routines.</summary>
    Own,
}

/// <summary>In which order the steps come.</summary>
public enum StepOrder
{
    /// <summary>All attempts at one step, then the next.</summary>
    Steps,

    /// <summary>One attempt at each step in turn.</summary>
    Rounds,

    /// <summary>The next step when one is done, back by one when it is not.</summary>
    Ladder,
}

/// <summary>Something to practise.</summary>
public sealed record Routine
{
    /// <summary>Upper bounds of a routine: letters of the name and of the text, number of steps and of attempts.</summary>
    public const int MaxName = 120,
        MaxText = 500,
        MaxSteps = 30,
        MaxAttempts = 200;

    /// <summary>Name, as the user sees it.</summary>
    public required string Name { get; init; }

    /// <summary>The family that it is listed under.</summary>
    public RoutineFamily Family { get; init; } = RoutineFamily.Own;

    /// <summary>Why, in two lines.</summary>
    public string Why { get; init; } = "";

    /// <summary>The task, in a line.</summary>
    public string Task { get; init; } = "";

    /// <summary>The one thing to look for.</summary>
    public string LookFor { get; init; } = "";

    /// <summary>The steps, in their order.</summary>
    public required IReadOnlyList<Step> Steps { get; init; }

    /// <summary>The order in which the steps are played.</summary>
    public StepOrder Order { get; init; }

    /// <summary>Attempts at each step, on each side.</summary>
    public int Attempts { get; init; } = 10;

    /// <summary>Whether it is played from both sides of the table.</summary>
    public bool BothSides { get; init; }

    /// <summary>What alone changes from rung to rung of a ladder, and is worked out for each: height or pace; else null.</summary>
    public string? Knob { get; init; }

    /// <summary>A step of one side of the table.</summary>
    public Step StepAt(int step, bool mirrored) => mirrored ? Steps[step].Mirrored : Steps[step];

    /// <exception cref="InputException">Anything in it that cannot be.</exception>
    public Routine Checked(TableShape shape, string path = "routine")
    {
        var checks = new Checks(path);
        checks.That(Steps.Count is >= 1 and <= MaxSteps, "steps", $"There are {Steps.Count} steps.", $"1 to {MaxSteps}");
        checks.Range("attempts", Attempts, 1, MaxAttempts);
        checks.That(Knob is null or "height" or "pace", "knob", "There is no such knob.", "height, pace");
        checks.ThrowIfAny();
        for (var i = 0; i < Steps.Count; i++)
        {
            var step = Steps[i];
            var layout = step.LayoutOn(shape, $"{path}.steps[{i}].balls");
            step.PotIn(layout, $"{path}.steps[{i}].stroke.pot");
            new Stroke(step.Stroke.Aim, step.Stroke.Side, step.Stroke.Height, step.Stroke.Pace, step.Stroke.Elevation ?? 0).ToStrike(
                $"{path}.steps[{i}].stroke"
            );
            var ofStep = new Checks($"{path}.steps[{i}]");
            ofStep.That(step.Demands.Count is >= 1 and <= 8, "demands", $"There are {step.Demands.Count} demands.", "1 to 8");
            var balls = step.Balls.Select(b => b.Id).Where(id => id != "white").ToHashSet();
            foreach (var (demand, k) in step.Demands.Select((d, k) => (d, k)))
                demand.Check(ofStep, $"demands[{k}]", balls, step.Stroke.Pot is not null);
            ofStep.ThrowIfAny();
        }
        return this;
    }
}
