using DeepBaize.Core.Advice.Decide;
using DeepBaize.Core.Geometry;
using DeepBaize.Core.Players;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Reading;

/// <summary>A ball in the way, and whether it is the cue ball's way or the object ball's.</summary>
public readonly record struct Obstacle(Ball Ball, bool OfCueBall);

/// <summary>Between the aims on either side at which a ball just still goes in, some of it off a jaw.</summary>
/// <param name="Degrees">Of aim.</param>
/// <param name="Millimetres">The same, across the line of aim at the contact.</param>
public readonly record struct Tolerance(double Degrees, double Millimetres);

/// <summary>Least room beside a way, m; negative if a ball is in the way, infinite if there is no other ball.</summary>
/// <param name="CueBall">Between the cue ball on its way and any other ball.</param>
/// <param name="Pot">The same for the object ball, and of a plant for the ball between.</param>
public readonly record struct Clearances(double CueBall, double Pot);

/// <summary>One ball into one pocket, judged.</summary>
/// <param name="Pace">The pace judged at: the one asked for, or the softest above it at which the ball gets there.</param>
/// <param name="AimDegrees">The aim that pots it; null if there is none.</param>
/// <param name="Chance">0–1, with what the reach costs; 0 if it is blocked or cannot be aimed.</param>
public sealed record PotOption(
    Cut Cut,
    double Pace,
    double? AimDegrees,
    Tolerance Tolerance,
    double Chance,
    Clearances Clearances,
    IReadOnlyList<Obstacle> Obstacles,
    Reach Reach
);

/// <summary>
/// What is on: every object ball into every pocket, straight, through another ball, or off one cushion. See docs/model.md, "Reading the
/// table".
/// </summary>
public static class TableReading
{
    private const double MaxPace = 9;

    /// <summary>Times the clear half of a pocket's window: nothing goes in from farther off.</summary>
    private const double FarthestOffJaw = 4;

    /// <summary>Where no way between the jaws is clear, what stands in for half of it, degrees.</summary>
    private const double LeastWindowDegrees = 0.3;

    /// <summary>Half a window is told as no wider than this, degrees.</summary>
    private const double MostWindowDegrees = 30;

    // Plants and doubles beyond this are never worth a look: common practice, no source.
    private const double FarthestPlant = 0.7,
        WidestPlantDegrees = 50,
        ThinnestDegrees = 65,
        LeastChance = 0.01;

    /// <summary>Of the plants only so many that look easiest are played out.</summary>
    private const int MostPlants = 24;

    /// <summary>
    /// All pots whose geometry is possible, the likeliest first; of those that are blocked, the freest first. Plants and doubles only if
    /// they are on.
    /// </summary>
    /// <param name="stroke">Tip, elevation and pace to judge with; the aim is found.</param>
    public static IReadOnlyList<PotOption> Read(
        Layout layout,
        Stroke stroke,
        Player player,
        TableShape shape,
        CancellationToken cancel = default
    )
    {
        var cuts = new List<Cut>();
        for (var slot = 1; slot < layout.Balls.Count; slot++)
            foreach (var pocket in Pockets.All)
                Offer(cuts, Cut.Of(layout, new(slot, pocket), shape));
        cuts.AddRange(Plants(layout, shape));
        cuts.AddRange(Doubles(layout, shape));
        var options = new PotOption?[cuts.Count];
        Parallel.For(
            0,
            cuts.Count,
            new() { MaxDegreeOfParallelism = Environment.ProcessorCount, CancellationToken = cancel },
            i => options[i] = Judge(layout, cuts[i], stroke, player, shape)
        );
        return
        [
            .. options
                .OfType<PotOption>()
                .Where(o => o.Cut.Kind == PotKind.Direct || o.Chance >= LeastChance)
                .OrderByDescending(o => o.Chance)
                .ThenByDescending(o => Math.Min(o.Clearances.CueBall, o.Clearances.Pot)),
        ];
    }

    /// <summary>One pot, judged at this stroke's own pace or the softest above it that gets the ball there.</summary>
    public static PotOption ReadOne(Layout layout, Pot pot, Stroke stroke, Player player, TableShape shape) =>
        Judge(layout, Cut.Of(layout, pot, shape), stroke, player, shape);

    /// <summary>The likeliest of the direct pots; null if none is on. Only those that look easiest are judged.</summary>
    public static PotOption? Likeliest(Layout layout, Stroke stroke, Player player, TableShape shape, CancellationToken cancel = default)
    {
        const int judged = 8;
        var cuts = new List<Cut>();
        for (var slot = 1; slot < layout.Balls.Count; slot++)
            foreach (var pocket in Pockets.All)
                if (Cut.Of(layout, new(slot, pocket), shape) is { Fault: CutFault.None } cut && IsClear(layout, cut))
                    cuts.Add(cut);
        PotOption? best = null;
        // By plain geometry, an error of aim is carried over the cue ball's way and across the contact.
        foreach (
            var cut in cuts.OrderByDescending(c =>
                    c.OpeningDegrees * Math.Cos(c.CutDegrees * Math.PI / 180) / (c.CueBallDistance + 2 * Dimensions.BallRadius)
                )
                .Take(judged)
        )
        {
            cancel.ThrowIfCancellationRequested();
            var option = Judge(layout, cut, stroke, player, shape);
            if (option.Chance > (best?.Chance ?? 0))
                best = option;
        }
        return best;
    }

    /// <summary>The chance of the likeliest double at a medium pace; 0 if none is on.</summary>
    public static double Doubles(Layout layout, Player player, TableShape shape)
    {
        const double pace = 5;
        return Doubles(layout, shape)
            .Select(cut => Judge(layout, cut, new(0, 0, 0, pace, 0), player, shape).Chance)
            .DefaultIfEmpty(0)
            .Max();
    }

    private static void Offer(List<Cut> cuts, in Cut cut)
    {
        if (cut.CanBeAimed)
            cuts.Add(cut);
    }

    private static IEnumerable<Cut> Plants(Layout layout, TableShape shape)
    {
        var cuts = new List<Cut>();
        for (var slot = 1; slot < layout.Balls.Count; slot++)
            for (var through = 1; through < layout.Balls.Count; through++)
            {
                if (through == slot || layout.Balls[slot].Gap(layout.Balls[through].At) > FarthestPlant)
                    continue;
                foreach (var pocket in Pockets.All)
                {
                    var cut = Cut.Of(layout, new(slot, pocket, Through: through), shape);
                    var turn = Math.Abs(Math.IEEERemainder(cut.FinalDegrees - cut.PotDegrees, 360));
                    // Balls in contact go where they point, thrown by a few degrees at most.
                    if (
                        cut.Fault == CutFault.None
                        && turn < (cut.Kind == PotKind.Set ? 8 : WidestPlantDegrees)
                        && Math.Abs(cut.CutDegrees) < ThinnestDegrees
                        && IsClear(layout, cut)
                    )
                        cuts.Add(cut);
                }
            }
        // How far an error of the aim is carried: across each contact by its distance over the ball's width.
        return cuts.OrderBy(c =>
                c.CueBallDistance
                * Math.Max(c.First.Length, 2 * Dimensions.BallRadius)
                / c.OpeningDegrees
                / Math.Cos(c.CutDegrees * Math.PI / 180)
            )
            .Take(MostPlants);
    }

    private static IEnumerable<Cut> Doubles(Layout layout, TableShape shape)
    {
        for (var slot = 1; slot < layout.Balls.Count; slot++)
            foreach (var pocket in Pockets.All)
                foreach (var cushion in Cushions.All)
                {
                    var cut = Cut.Of(layout, new(slot, pocket, Off: cushion), shape);
                    if (cut.Fault == CutFault.None && Math.Abs(cut.CutDegrees) < ThinnestDegrees && IsClear(layout, cut))
                        yield return cut;
                }
    }

    private static bool IsClear(Layout layout, in Cut cut)
    {
        var obstacles = new List<Obstacle>();
        ClearancesOf(layout, cut, obstacles);
        return obstacles.Count == 0;
    }

    /// <summary>Least room on the cue ball's way and on the object balls', and who is in the way.</summary>
    private static Clearances ClearancesOf(Layout layout, in Cut cut, List<Obstacle> obstacles)
    {
        var (cueBall, ways) = (double.PositiveInfinity, double.PositiveInfinity);
        for (var i = 1; i < layout.Balls.Count; i++)
        {
            var other = layout.Balls[i];
            var ofCueBall = i == cut.Pot.Struck ? double.PositiveInfinity : other.Gap(new Segment(layout.White.At, cut.Ghost));
            var ofPot = i == cut.Pot.Slot || i == cut.Pot.Struck ? double.PositiveInfinity : other.Gap(cut.First);
            if (cut.Last is { } last && i != cut.Pot.Slot && i != cut.Pot.Struck)
                ofPot = Math.Min(ofPot, other.Gap(last));
            if (ofCueBall < -TableShape.InputTolerance)
                obstacles.Add(new(other.Ball, true));
            if (ofPot < -TableShape.InputTolerance)
                obstacles.Add(new(other.Ball, false));
            (cueBall, ways) = (Math.Min(cueBall, ofCueBall), Math.Min(ways, ofPot));
        }
        return new(cueBall, ways);
    }

    private static PotOption Judge(Layout layout, in Cut cut, Stroke stroke, Player player, TableShape shape)
    {
        var obstacles = new List<Obstacle>();
        var clearances = ClearancesOf(layout, cut, obstacles);
        var reach = Reach.Of(layout, stroke with { AimDegrees = cut.AimDegrees }, player);
        // The butt goes up as far as it must, and the ball is judged as struck so.
        stroke = stroke with
        {
            ElevationDegrees = Math.Max(stroke.ElevationDegrees, reach.ElevationDegrees),
        };
        var skill = player.Skill.Times(reach.ErrorFactor);
        var off = new PotOption(cut, stroke.Pace, null, default, 0, clearances, obstacles, reach);
        if (obstacles.Count > 0)
            return off;

        var trial = new PotTrial(layout, cut, shape);
        double? near = null;
        for (var pace = stroke.Pace; ; pace = Math.Min(MaxPace, pace + 0.5))
        {
            var played = stroke with { Pace = pace };
            var aim = PotAim.Find(trial, cut, played, near);
            near = aim ?? near;
            if (aim is not null && trial.Pots(played with { AimDegrees = aim.Value }))
            {
                played = played with { AimDegrees = aim.Value };
                var (tolerance, chance) = Chance(trial, cut, played, skill);
                if (cut.Kind != PotKind.Direct || cut.CueBallDistance < Cut.Touching || cut.IsAlongCushion)
                    chance = Sampled(trial, played, skill);
                return off with
                {
                    Pace = pace,
                    AimDegrees = aim,
                    Tolerance = new(tolerance, tolerance * Math.PI / 180 * cut.CueBallDistance * 1000),
                    Chance = chance,
                };
            }
            if (pace >= MaxPace)
                return off;
        }
    }

    /// <summary>
    /// Past a second contact or a cushion, along one, or at a ball that is touched already, errors do not add up in a line: there the
    /// stroke is played out.
    /// </summary>
    private static double Sampled(PotTrial trial, Stroke stroke, Skill skill)
    {
        const int samples = 200;
        var random = new Random(1);
        var potted = 0;
        for (var i = 0; i < samples; i++)
        {
            var error = StrokeError.Draw(random, skill);
            if (trial.Pots(error.Applied(stroke), error.Side, error.Height))
                potted++;
        }
        return (double)potted / samples;
    }

    /// <summary>
    /// The tolerance in aim (degrees, both sides together), and the chance: each error of the stroke moves the object ball's line by so
    /// much, their squares add up, and the pocket takes what stays within its window, a part of it off the jaws.
    /// </summary>
    private static (double Tolerance, double Chance) Chance(PotTrial trial, in Cut cut, Stroke stroke, Skill skill)
    {
        static double Half(double? up, double? down) => up is { } u && down is { } d ? (u - d) / 2 : up ?? -(down ?? 0);
        var turn = skill.DirectionDegrees;
        var tip = skill.TipError;
        var harder = Math.Min(Pace.Hardest, Pace.OfCueSpeed(Pace.CueSpeed(stroke.Pace) * (1 + skill.PacePercent / 100)));
        var softer = Math.Max(Pace.Slowest, Pace.OfCueSpeed(Pace.CueSpeed(stroke.Pace) * (1 - skill.PacePercent / 100)));
        var byAim = Half(
            trial.Miss(stroke with { AimDegrees = stroke.AimDegrees + turn }),
            trial.Miss(stroke with { AimDegrees = stroke.AimDegrees - turn })
        );
        var bySide = Half(trial.Miss(stroke, sideError: tip), trial.Miss(stroke, sideError: -tip));
        var byHeight = Half(trial.Miss(stroke, heightError: tip), trial.Miss(stroke, heightError: -tip));
        var byPace = Half(trial.Miss(stroke with { Pace = harder }), trial.Miss(stroke with { Pace = softer }));
        var sigma = Math.Sqrt(byAim * byAim + bySide * bySide + byHeight * byHeight + byPace * byPace);
        // Half of the clear window, in aim; how many times as far the ball still goes in, off a jaw, is tried out on either side.
        var perAim = cut.IsAlongCushion ? 1 / PotAim.PerAim(cut) : Math.Abs(byAim / turn);
        if (perAim == 0)
            return (0, 0);
        // Touching balls set each other off by the line between them, hardly by the aim: no more than that it meets them at all.
        var clear = Math.Min(MostWindowDegrees, Math.Max(cut.OpeningDegrees / 2, LeastWindowDegrees) / perAim);
        var (left, right) = (Window(trial, stroke, clear), Window(trial, stroke, -clear));
        return ((left + right) * clear, (Normal.Within(left * clear * perAim / sigma) + Normal.Within(right * clear * perAim / sigma)) / 2);
    }

    /// <summary>
    /// How many times this turn of the aim may be before the ball stays out: at least 0, at most <see cref="FarthestOffJaw"/>.
    /// </summary>
    private static double Window(PotTrial trial, Stroke stroke, double turn)
    {
        bool Pots(double times) => trial.Pots(stroke with { AimDegrees = stroke.AimDegrees + times * turn });
        // The slice that is in doubt: from the clear edge outwards, or, should friction have bent the line, inwards.
        double inside = Pots(0.98) ? 0.98 : 0,
            outside = inside == 0 ? 0.98 : FarthestOffJaw;
        if (inside > 0 && Pots(outside))
            return outside;
        for (var i = 0; i < 6; i++)
        {
            var middle = (inside + outside) / 2;
            if (Pots(middle))
                inside = middle;
            else
                outside = middle;
        }
        return (inside + outside) / 2;
    }
}
