using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Reading;

/// <summary>A ball in the way, and whether it is the cue ball's way or the object ball's.</summary>
public readonly record struct Obstacle(Ball Ball, bool OfCueBall);

/// <summary>Between the aims on either side at which a ball just still goes in, some of it off a jaw.</summary>
/// <param name="Degrees">Of aim.</param>
/// <param name="Millimetres">Width of the window across the line of aim at the contact, mm.</param>
public readonly record struct Tolerance(double Degrees, double Millimetres);

/// <summary>Least room beside a way, m; negative if a ball is in the way, infinite if there is no other ball.</summary>
/// <param name="CueBall">Between the cue ball on its way and any other ball.</param>
/// <param name="Pot">Least gap beside the way of the object ball, and in a plant of the ball between, m.</param>
public readonly record struct Clearances(double CueBall, double Pot);

/// <summary>One ball into one pocket, judged.</summary>
/// <param name="Stroke">
/// By which it is judged: at the pace asked for, or, where that is too soft, at the softest above it at which the ball gets there though it
/// be struck two standard deviations too softly; at the height asked for, or, where a plain ball would need the butt raised, higher; the
/// butt as high as it must be.
/// </param>
/// <param name="IsAimed">Whether there is an aim that pots it, the stroke's.</param>
/// <param name="Chance">
/// 0–1, with what the reach costs: played, the other balls taken as out of the way; 0 if it is blocked or cannot be aimed.
/// </param>
public sealed record PotOption(
    Cut Cut,
    Stroke Stroke,
    bool IsAimed,
    Tolerance Tolerance,
    Estimate Chance,
    Clearances Clearances,
    IReadOnlyList<Obstacle> Obstacles,
    Reach Reach
)
{
    /// <summary>The pace judged at.</summary>
    public double Pace => Stroke.Pace;

    /// <summary>The aim that pots it, degrees; null if there is none.</summary>
    public double? AimDegrees => IsAimed ? Stroke.AimDegrees : null;
}

/// <summary>
/// What is on: every object ball into every pocket, straight, through another ball, or off one cushion. See docs/model.md, "Reading the
/// table".
/// </summary>
public static class TableReading
{
    /// <summary>Harder nobody is asked to play to get a ball there: of the cue, m/s.</summary>
    private const double Hardest = 5.1;

    // Plants and doubles beyond this are never worth a look: common practice, no source.
    private const double FarthestPlant = 0.7,
        WidestPlantDegrees = 50,
        ThinnestDegrees = 65,
        LeastChance = 0.01,
        LeastQuick = 0.02;

    // Strokes for a chance: these first, then twice as many until it is known well enough. For what is only compared the first do.
    private const int FirstStrokes = 64,
        MostStrokes = 1024,
        StrokesOfOthers = 128;

    /// <summary>Below even a chance need not be known as well: nobody would play it.</summary>
    private const double Unlikely = 0.5,
        EnoughOfUnlikely = 0.02;

    private static readonly ErrorStream Telling = ErrorStream.Named("read: tell"),
        Looking = ErrorStream.Named("read: look for others"),
        TellingBest = ErrorStream.Named("read: tell the best"),
        Choosing = ErrorStream.Named("read: choose");

    /// <summary>Number of plants that are played out, the easiest-looking first.</summary>
    private const int MostPlants = 24;

    /// <summary>
    /// All pots whose geometry is possible, the likeliest first; of those that are blocked, the freest first. Plants and doubles only if
    /// they are on.
    /// </summary>
    /// <param name="stroke">Tip, elevation and pace to judge with; the aim is found.</param>
    /// <param name="isOn">
    /// Whether a ball may be played at now: the others are judged by fewer strokes, and without plants and doubles; null: all are alike.
    /// </param>
    public static IReadOnlyList<PotOption> Read(
        Layout layout,
        Stroke stroke,
        Player player,
        TableShape shape,
        Workers? workers = null,
        Func<Ball, bool>? isOn = null
    )
    {
        var cuts = new List<Cut>();
        for (var slot = 1; slot < layout.Balls.Count; slot++)
            foreach (var pocket in Pockets.All)
                Offer(cuts, Cut.Of(layout, new(slot, pocket), shape));
        cuts.AddRange(IndirectCuts(layout, player, shape, isOn ?? (_ => true)));
        return [.. Judged(cuts, layout, stroke, player, shape, (workers, isOn)).Where(o => o.Cut.Kind == PotKind.Direct || IsOn(o))];
    }

    /// <summary>Plants, sets and doubles that are on, the likeliest first.</summary>
    /// <param name="mayPlay">Whether a ball may be struck and potted; the others are left out.</param>
    public static IReadOnlyList<PotOption> Indirect(
        Layout layout,
        Stroke stroke,
        Player player,
        TableShape shape,
        Workers workers,
        Func<Ball, bool> mayPlay
    )
    {
        List<Cut> cuts = [.. IndirectCuts(layout, player, shape, mayPlay)];
        return [.. Judged(cuts, layout, stroke, player, shape, (workers, null)).Where(IsOn)];
    }

    private static bool IsOn(PotOption option) => option.Chance.Value >= LeastChance;

    /// <summary>Plants, sets and doubles of balls that may be played at and look worth a try.</summary>
    private static IEnumerable<Cut> IndirectCuts(Layout layout, Player player, TableShape shape, Func<Ball, bool> mayPlay)
    {
        bool May(in Cut cut) => mayPlay(layout.Balls[cut.Pot.Struck].Ball) && mayPlay(layout.Balls[cut.Pot.Slot].Ball);
        return Plants(layout, shape)
            .Concat(Doubles(layout, shape))
            .Where(c => May(c) && QuickChance.OfIndirect(c, player.Skill) >= LeastQuick);
    }

    private static IEnumerable<PotOption> Judged(
        List<Cut> cuts,
        Layout layout,
        Stroke stroke,
        Player player,
        TableShape shape,
        (Workers? Workers, Func<Ball, bool>? IsOn) how
    )
    {
        var workers = how.Workers ?? Workers.Shared();
        var most = workers.Bounded(MostStrokes, FirstStrokes);
        PotOption Of(Cut cut)
        {
            var isOn = how.IsOn?.Invoke(layout.Balls[cut.Pot.Slot].Ball) ?? true;
            return Judge(layout, cut, stroke, player, shape, Telling, isOn ? most : Math.Min(most, StrokesOfOthers));
        }
        return workers
            .InParallel(cuts.Count, i => Of(cuts[i]))
            .OrderByDescending(o => o.Chance.Value)
            .ThenByDescending(o => Math.Min(o.Clearances.CueBall, o.Clearances.Pot));
    }

    /// <summary>One pot, judged at this stroke's own pace or the softest above it that gets the ball there.</summary>
    public static PotOption ReadOne(Layout layout, Pot pot, Stroke stroke, Player player, TableShape shape) =>
        Judge(layout, Cut.Of(layout, pot, shape), stroke, player, shape, Telling);

    /// <summary>The chance of a pot with a stroke just as it is set and aimed, the other balls out of the way.</summary>
    public static Estimate ChanceAsSet(Layout layout, Pot pot, Stroke stroke, Player player, TableShape shape)
    {
        var cut = Cut.Of(layout, pot, shape);
        var scatter = Scatter.Of(layout, stroke, player.Skill.Times(Reach.Of(layout, stroke, player).ErrorFactor), shape, pot);
        return Played(new(layout, cut, shape), cut, stroke, scatter, Telling, MostStrokes);
    }

    /// <summary>
    /// The best chance of a pot at any of several paces, plain ball or nearly, by a few strokes each: to find whether it is on, not to tell
    /// how likely it is.
    /// </summary>
    public static double BestChance(Layout layout, Pot pot, Player player, TableShape shape)
    {
        const int strokes = 32,
            toldStrokes = 64;
        const double certain = 0.9,
            nearly = 0.3;
        var cut = Cut.Of(layout, pot, shape);
        if (!cut.CanBeAimed || !IsClear(layout, cut))
            return 0;
        var trial = new PotTrial(layout, cut, shape);
        var (best, bestStroke, bestScatter) = (0.0, default(Stroke), default(Scatter));
        var (simulator, record) = (new Simulator(shape, Simulator.Coarse), new ShotRecord());
        double? near = null;
        double Shares(Scatter scatter, in Stroke stroke, ErrorStream stream, int count)
        {
            var potted = 0;
            foreach (var draws in stream.Set(count))
                if (scatter.Error(draws).Pots(trial, stroke))
                    potted++;
            return (double)potted / count;
        }
        void Try(double speed, double height)
        {
            var stroke = new Stroke(cut.AimDegrees, 0, height, Pace.OfCueSpeed(speed), 0);
            if (height == 0)
                stroke = stroke with { HeightTips = Reach.PlainHeightFor(layout, stroke) };
            var reach = Reach.Of(layout, stroke, player);
            stroke = stroke with { ElevationDegrees = reach.ButtDegrees };
            if (PotAim.Find(trial, cut, stroke, near, PotAim.Roughly) is not { } aim)
                return;
            near = aim;
            stroke = stroke with { AimDegrees = aim };
            var scatter = Scatter.Of(layout, stroke, player.Skill.Times(reach.ErrorFactor), simulator, record, pot);
            var share = Shares(scatter, stroke, Choosing, strokes);
            if (share > best)
                (best, bestStroke, bestScatter) = (share, stroke, scatter);
        }
        foreach (var speed in (ReadOnlySpan<double>)[1.05, 1.7, 2.7, 0.75, 0.65])
        {
            Try(speed, 0);
            if (best > certain)
                return best;
        }
        // Where plain ball is not quite enough, a little screw or follow may be.
        if (best is > nearly and <= 0.5)
        {
            var speed = Pace.CueSpeed(bestStroke.Pace);
            foreach (var height in (ReadOnlySpan<double>)[-0.7, 0.7])
                Try(speed, height);
        }
        // Of several the best is the lucky one: what it comes to is told by strokes that have not chosen it.
        return bestScatter is null ? 0 : Shares(bestScatter, bestStroke, TellingBest, toldStrokes);
    }

    /// <summary>
    /// The best chance of a plant, a set or a double into a middle pocket among those that look worth a try; 0 if none does.
    /// </summary>
    /// <param name="mayPlay">Whether a ball may be struck and potted.</param>
    /// <param name="least">By the quick estimate, to be looked at.</param>
    public static double BestIndirect(Layout layout, Func<Ball, bool> mayPlay, Player player, TableShape shape, double least)
    {
        const double near = 0.15;
        const int most = 2;
        var found = new List<(Cut Cut, double Quick)>();
        void Offer(Pot pot)
        {
            var cut = Cut.Of(layout, pot, shape);
            if (cut.Fault != CutFault.None || Math.Abs(cut.CutDegrees) > ThinnestDegrees)
                return;
            if (
                pot.Through > 0
                && Math.Abs(Math.IEEERemainder(cut.FinalDegrees - cut.PotDegrees, 360)) > (cut.Kind == PotKind.Set ? 8 : WidestPlantDegrees)
            )
                return;
            var quick = QuickChance.OfIndirect(cut, player.Skill);
            if (quick > least && IsClear(layout, cut))
                found.Add((cut, quick));
        }
        for (var slot = 1; slot < layout.Balls.Count; slot++)
        {
            if (!mayPlay(layout.Balls[slot].Ball))
                continue;
            Offer(new(slot, Pocket.GreenMiddle, Off: Cushion.YellowSide));
            Offer(new(slot, Pocket.YellowMiddle, Off: Cushion.GreenSide));
            for (var through = 1; through < layout.Balls.Count; through++)
                if (through != slot && mayPlay(layout.Balls[through].Ball) && layout.Balls[slot].Gap(layout.Balls[through].At) < near)
                    foreach (var pocket in Pockets.All)
                        Offer(new(slot, pocket, Through: through));
        }
        return found
            .OrderByDescending(f => f.Quick)
            .Take(most)
            .Select(f => BestChance(layout, f.Cut.Pot, player, shape))
            .DefaultIfEmpty(0)
            .Max();
    }

    /// <summary>The likeliest of the direct pots; null if none is on. Only those that look easiest are judged.</summary>
    /// <param name="isOn">Whether a ball may be potted; null: any may.</param>
    public static PotOption? Likeliest(
        Layout layout,
        Stroke stroke,
        Player player,
        TableShape shape,
        Func<Ball, bool>? isOn = null,
        CancellationToken cancel = default
    )
    {
        const int judged = 8;
        var cuts = new List<Cut>();
        for (var slot = 1; slot < layout.Balls.Count; slot++)
        {
            if (isOn?.Invoke(layout.Balls[slot].Ball) == false)
                continue;
            foreach (var pocket in Pockets.All)
                if (Cut.Of(layout, new(slot, pocket), shape) is { Fault: CutFault.None } cut && IsClear(layout, cut))
                    cuts.Add(cut);
        }
        PotOption? best = null;
        // Chosen by a few strokes, and told by others. By plain geometry, an error of aim is carried over the cue ball's way and across
        // the contact.
        foreach (
            var cut in cuts.OrderByDescending(c =>
                    c.OpeningDegrees * Math.Cos(c.CutDegrees * Math.PI / 180) / (c.CueBallDistance + 2 * Dimensions.BallRadius)
                )
                .Take(judged)
        )
        {
            cancel.ThrowIfCancellationRequested();
            var option = Judge(layout, cut, stroke, player, shape, Choosing);
            if (option.Chance.Value > (best?.Chance.Value ?? 0))
                best = option;
        }
        return best is null ? null : Judge(layout, best.Cut, stroke, player, shape, Telling);
    }

    /// <summary>The chance of the likeliest double at a medium pace; 0 if none is on.</summary>
    public static double Doubles(Layout layout, Player player, TableShape shape)
    {
        return Doubles(layout, shape)
            .Select(cut => Judge(layout, cut, new(0, 0, 0, Pace.Medium, player.NaturalElevation), player, shape, Choosing).Chance.Value)
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

    /// <param name="stream">Of the errors: the one that tells, or, with the first few strokes only, the one that chooses.</param>
    /// <param name="most">Largest number of strokes sampled.</param>
    private static PotOption Judge(
        Layout layout,
        in Cut cut,
        Stroke stroke,
        Player player,
        TableShape shape,
        ErrorStream stream,
        int most = MostStrokes
    )
    {
        var obstacles = new List<Obstacle>();
        var clearances = ClearancesOf(layout, cut, obstacles);
        // At a cushion, or over a ball, a plain ball is struck high, so that the butt need not go up so far.
        if (stroke.HeightTips == 0)
            stroke = stroke with { HeightTips = Reach.PlainHeightFor(layout, stroke with { AimDegrees = cut.AimDegrees }) };
        var reach = Reach.Of(layout, stroke with { AimDegrees = cut.AimDegrees }, player);
        // The butt goes up as far as it must, and the ball is judged as struck so.
        stroke = stroke with { ElevationDegrees = Math.Max(stroke.ElevationDegrees, reach.LeastDegrees) };
        var skill = player.Skill.Times(reach.ErrorFactor);
        var off = new PotOption(cut, stroke, false, default, default, clearances, obstacles, reach);
        if (obstacles.Count > 0)
            return off;

        var trial = new PotTrial(layout, cut, shape);
        if (Softest(trial, cut, stroke, skill) is not { } played)
            return off;
        var (right, left) = PotAim.Window(trial, cut, played);
        played = played with { AimDegrees = PotAim.Centred(played.AimDegrees, (right, left)) };
        var scatter = Scatter.Of(layout, played, skill, shape, cut.Pot);
        var chance = Played(trial, cut, played, scatter, stream, most);
        // Where the white, or what it runs into, meets the ball again, the two alone do not tell.
        if (stream == Telling && chance.Value > LeastChance && OthersMatter(layout, trial, cut, played, scatter, shape))
            chance = Spread
                .Sample(new(layout, played, cut, skill, shape), Workers.Single(default), SpreadEffort.Of(chance.Strokes), stream, false)
                .Odds.Pot;
        return off with
        {
            Stroke = played,
            IsAimed = true,
            Tolerance = new(left - right, (left - right) * Math.PI / 180 * cut.CueBallDistance * 1000),
            Chance = chance,
        };
    }

    /// <summary>Whether a few strokes go otherwise on the whole table than with the balls of the pot alone.</summary>
    private static bool OthersMatter(Layout layout, PotTrial trial, in Cut cut, Stroke stroke, Scatter scatter, TableShape shape)
    {
        const int looked = 6;
        var slot = cut.Pot.Slot;
        if (layout.Balls.Count <= (cut.Pot.IsPlant ? 3 : 2))
            return false;
        var simulator = new Simulator(shape, Simulator.Coarse);
        for (var i = 0; i < looked; i++)
        {
            var error = scatter.Error(Looking.At(i));
            error.Play(simulator, layout, stroke, null, () => !simulator.IsOnTable(slot));
            if ((simulator.PocketOf(slot) == cut.Pocket) != error.Pots(trial, stroke))
                return true;
        }
        return false;
    }

    /// <summary>
    /// The stroke, aimed, at its own pace if that pots; else at the softest above that still gets the ball there when struck two standard
    /// deviations too softly. Null if none does.
    /// </summary>
    private static Stroke? Softest(PotTrial trial, in Cut cut, Stroke stroke, Skill skill)
    {
        // The aim off a far jaw, or off a cushion, takes long to find.
        var step =
            cut.Fault == CutFault.OffJaw ? 1.6
            : cut.Kind == PotKind.Double ? 1.37
            : 1.17;
        const double tooSoft = 2;
        double? near = null;
        Stroke? last = null;
        var asked = Pace.CueSpeed(stroke.Pace);
        foreach (var pace in Pace.Ladder(asked, Math.Max(Hardest, asked), step).Skip(1).Prepend(stroke.Pace))
        {
            var played = stroke with { Pace = pace };
            near = PotAim.Find(trial, cut, played, near, PotAim.Roughly) ?? near;
            if (near is null || !trial.Pots(played with { AimDegrees = near.Value }))
                continue;
            played = played with { AimDegrees = near.Value };
            last = played;
            var softer = new StrokeError(0, -tooSoft * skill.PacePercent / 100, 0, 0);
            if ((pace == stroke.Pace && cut.Kind == PotKind.Direct) || trial.GetsThere(softer.Launch(played, trial.Conditions)))
                break;
        }
        return last;
    }

    /// <summary>The stroke played out with the player's errors, until the share that goes in is known well enough.</summary>
    private static Estimate Played(PotTrial trial, in Cut cut, Stroke stroke, Scatter scatter, ErrorStream stream, int most)
    {
        var pots = new Sums();
        for (var next = FirstStrokes; ; next *= 2)
        {
            for (var i = pots.Strokes; i < next; i++)
            {
                pots.Add(i, scatter.Error(stream.At(i)).Pots(trial, stroke));
            }
            var share = pots.Share;
            var isHopeless = cut.Kind != PotKind.Direct && share.Value < LeastChance;
            var enough = share.Value < Unlikely ? EnoughOfUnlikely : SpreadEffort.EnoughError;
            if (next >= most || share.IsShareKnownTo(enough) || isHopeless || stream == Choosing)
                return share;
        }
    }
}
