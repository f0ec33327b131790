using DeepBaize.Core.Table;

namespace DeepBaize.Core.Shots;

/// <summary>A ball in the way, and whether it is the cue ball's way or the object ball's.</summary>
public readonly record struct Obstacle(Ball Ball, bool OfCueBall);

/// <summary>One ball into one pocket, judged.</summary>
/// <param name="Pace">The pace judged at: the one asked for, or the softest above it at which the ball gets there.</param>
/// <param name="AimDegrees">The aim that pots it; null if there is none.</param>
/// <param name="ToleranceDegrees">Between the aims on either side at which it just still goes in, some of it off a jaw.</param>
/// <param name="ToleranceMillimetres">The same, across the line of aim at the contact.</param>
/// <param name="Chance">0–1; 0 if it is blocked or cannot be aimed.</param>
/// <param name="CueBallClearance">Least room between the cue ball on its way and any other ball, m; negative if one is in the way.</param>
/// <param name="PotClearance">The same for the object ball.</param>
public sealed record PotOption(
    Cut Cut, double Pace, double? AimDegrees, double ToleranceDegrees, double ToleranceMillimetres, double Chance,
    double CueBallClearance, double PotClearance, IReadOnlyList<Obstacle> Obstacles);

/// <summary>What is on: every object ball into every pocket. Straight ways only; see docs/model.md, "Reading the table".</summary>
public static class TableReading
{
    private const double MaxPace = 9;

    /// <summary>Times the clear half of a pocket's window: nothing goes in from farther off.</summary>
    private const double FarthestOffJaw = 4;

    /// <summary>All pots whose geometry is possible, the likeliest first; of those that are blocked, the freest first.</summary>
    /// <param name="stroke">Tip, elevation and pace to judge with; the aim is found.</param>
    public static IReadOnlyList<PotOption> Read(Layout layout, Stroke stroke, Skill skill, TableShape shape)
    {
        var options = new List<PotOption>();
        for (var slot = 1; slot < layout.Balls.Count; slot++)
            foreach (var pocket in Pockets.All)
            {
                var cut = Cut.Of(layout.White, layout.Balls[slot], pocket, shape);
                if (cut.CanBeAimed) options.Add(Judge(layout, slot, cut, stroke, skill, shape));
            }
        return [.. options.OrderByDescending(o => o.Chance).ThenByDescending(o => Math.Min(o.CueBallClearance, o.PotClearance))];
    }

    private static PotOption Judge(Layout layout, int slot, in Cut cut, Stroke stroke, Skill skill, TableShape shape)
    {
        var objectBall = layout.Balls[slot];
        var obstacles = new List<Obstacle>();
        var (cueBallClearance, potClearance) = (double.PositiveInfinity, double.PositiveInfinity);
        for (var i = 1; i < layout.Balls.Count; i++)
        {
            if (i == slot) continue;
            var other = layout.Balls[i];
            var ofCueBall = Layout.GapFrom(layout.White.X, layout.White.Y, cut.GhostX, cut.GhostY, other);
            var ofPot = Layout.GapFrom(objectBall.X, objectBall.Y, cut.TargetX, cut.TargetY, other);
            if (ofCueBall < 0) obstacles.Add(new(other.Ball, true));
            if (ofPot < 0) obstacles.Add(new(other.Ball, false));
            (cueBallClearance, potClearance) = (Math.Min(cueBallClearance, ofCueBall), Math.Min(potClearance, ofPot));
        }
        if (obstacles.Count > 0 || cut.Fault != CutFault.None)
            return new(cut, stroke.Pace, null, 0, 0, 0, cueBallClearance, potClearance, obstacles);

        var trial = new PotTrial(layout.White, objectBall, cut, shape);
        for (var pace = stroke.Pace; ; pace = Math.Min(MaxPace, pace + 0.5))
        {
            var played = stroke with { Pace = pace };
            if (PotAim.Find(trial, cut, played) is { } aim && Arrives(trial))
            {
                played = played with { AimDegrees = aim };
                var (tolerance, chance) = Chance(trial, cut, played, skill);
                return new(cut, pace, aim, tolerance, tolerance * Math.PI / 180 * cut.CueBallDistance * 1000, chance, cueBallClearance, potClearance, obstacles);
            }
            if (pace >= MaxPace) return new(cut, stroke.Pace, null, 0, 0, 0, cueBallClearance, potClearance, obstacles);
        }
    }

    private static bool Arrives(PotTrial trial) =>
        trial.Record.Events.Any(e => e.Kind == Physics.ShotEventKind.Pot && e.Ball == 1);

    /// <summary>
    /// The tolerance in aim (degrees, both sides together), and the chance: each error of the stroke moves the object ball's line by so much,
    /// their squares add up, and the pocket takes what stays within its window, a part of it off the jaws.
    /// </summary>
    private static (double Tolerance, double Chance) Chance(PotTrial trial, in Cut cut, Stroke stroke, Skill skill)
    {
        static double Half(double? up, double? down) => up is { } u && down is { } d ? (u - d) / 2 : up ?? -(down ?? 0);
        var turn = skill.DirectionDegrees;
        var tip = skill.TipError;
        var harder = Math.Min(Pace.Hardest, Pace.OfCueSpeed(Pace.CueSpeed(stroke.Pace) * (1 + skill.PacePercent / 100)));
        var softer = Math.Max(Pace.Slowest, Pace.OfCueSpeed(Pace.CueSpeed(stroke.Pace) * (1 - skill.PacePercent / 100)));
        var byAim = Half(trial.Miss(stroke with { AimDegrees = stroke.AimDegrees + turn }), trial.Miss(stroke with { AimDegrees = stroke.AimDegrees - turn }));
        var bySide = Half(trial.Miss(stroke, sideError: tip), trial.Miss(stroke, sideError: -tip));
        var byHeight = Half(trial.Miss(stroke, heightError: tip), trial.Miss(stroke, heightError: -tip));
        var byPace = Half(trial.Miss(stroke with { Pace = harder }), trial.Miss(stroke with { Pace = softer }));
        var sigma = Math.Sqrt(byAim * byAim + bySide * bySide + byHeight * byHeight + byPace * byPace);
        if (byAim == 0) return (0, 0);
        // Half of the clear window, in aim; how many times as far the ball still goes in, off a jaw, is tried out on either side.
        var perAim = Math.Abs(byAim / turn);
        var clear = cut.OpeningDegrees / 2 / perAim;
        var (left, right) = (Reach(trial, stroke, clear), Reach(trial, stroke, -clear));
        return ((left + right) * clear, (Normal.Within(left * clear * perAim / sigma) + Normal.Within(right * clear * perAim / sigma)) / 2);
    }

    /// <summary>How many times this turn of the aim may be before the ball stays out: at least 0, at most <see cref="FarthestOffJaw"/>.</summary>
    private static double Reach(PotTrial trial, Stroke stroke, double turn)
    {
        bool Pots(double times)
        {
            trial.Miss(stroke with { AimDegrees = stroke.AimDegrees + times * turn });
            return Arrives(trial);
        }
        // The slice that is in doubt: from the clear edge outwards, or, should friction have bent the line, inwards.
        double inside = Pots(0.98) ? 0.98 : 0, outside = inside == 0 ? 0.98 : FarthestOffJaw;
        if (inside > 0 && Pots(outside)) return outside;
        for (var i = 0; i < 6; i++)
        {
            var middle = (inside + outside) / 2;
            if (Pots(middle)) inside = middle;
            else outside = middle;
        }
        return (inside + outside) / 2;
    }
}
