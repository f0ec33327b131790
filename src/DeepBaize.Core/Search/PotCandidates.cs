using DeepBaize.Core.Play;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Search;

/// <summary>A pot that is on, with everything about it that does not depend on the stroke.</summary>
/// <param name="Chance">Quick estimate of the probability that the ball goes in, 0–1.</param>
internal sealed record PotCandidate(Target Target, double Chance)
{
    public Pot Pot => Target.Pot;

    public Cut Cut => Target.Cut;

    public Ball Nominated => Target.Nominated;

    /// <summary>Returns this pot aimed at another part of the pocket; null outside the pocket or where there is no aim.</summary>
    public PotCandidate? InPart(double beside, Layout layout, TableShape shape)
    {
        var part = Pot.Part + beside;
        if (Math.Abs(part) > 1)
            return null;
        var cut = Cut.Of(layout, Pot with { Part = part }, shape);
        return cut.CanBeAimed ? this with { Target = new(cut.Pot, Nominated, cut) } : null;
    }
}

/// <summary>First stage of <see cref="ShotSearch"/>: the pots on that are worth trying, by the quick estimate.</summary>
internal sealed class PotCandidates(SearchContext context)
{
    // A pot less likely than this, or than this share of the likeliest, is not tried.
    private const double LeastChance = 0.02,
        LeastShare = 0.15;

    // Plants and doubles are tried too where no direct pot is this likely.
    private const double PoorChance = 0.35,
        LeastIndirectChance = 0.1;

    private const int MostIndirect = 3;

    /// <summary>Returns the candidates, the most valuable direct pots first.</summary>
    /// <param name="allKinds">Whether plants and doubles are candidates where direct pots are poor.</param>
    public List<PotCandidate> Find(Situation from, Effort effort, bool allKinds, Workspace? workspace = null)
    {
        if (from.Frame.IsOver)
            return [];
        var direct = Direct(from, effort, workspace?.LinesOf(from.Layout) ?? new PotLines(from.Layout, context.Shape));
        var likeliest = direct.Count == 0 ? 0 : direct.Max(d => d.Candidate.Chance);
        var best = direct
            .Where(d => d.Candidate.Chance >= LeastShare * likeliest)
            .OrderByDescending(d => d.Value)
            .Take(effort.Pots)
            .Select(d => d.Candidate);
        return allKinds && likeliest < PoorChance ? [.. best, .. Indirect(from).Take(MostIndirect)] : [.. best];
    }

    private List<(PotCandidate Candidate, double Value)> Direct(Situation from, Effort effort, PotLines lines)
    {
        var found = new List<(PotCandidate, double)>();
        var isMeant = MeantOf(from);
        foreach (var line in lines.Lines)
        {
            var ball = lines.BallIn(line.Slot);
            if (
                !from.Frame.MayPlay(ball)
                || !isMeant(ball)
                || lines.From(line, from.Layout.White.At, context.Player.Skill) is not { } pot
                || pot.Chance < LeastChance
            )
                continue;
            var cut = Cut.Of(from.Layout, new(line.Slot, line.Pocket), context.Shape);
            if (cut.Fault == CutFault.None || (cut.CanBeAimed && effort.OffJaws))
                found.Add((new(new(cut.Pot, ball, cut), pot.Chance), context.Evaluation.Heuristic(from, lines, pot)));
        }
        return found;
    }

    /// <summary>Which of the balls on are played for: at the root the ball that is wished for next is not the one to begin with.</summary>
    private Func<Ball, bool> MeantOf(Situation from)
    {
        var wishes = context.Preferences;
        if (wishes.Next is null && wishes.Later.Count == 0)
            return static _ => true;
        List<Ball> on = [.. from.OnSlots().Select(slot => from.Layout.Balls[slot].Ball)];
        if (wishes.Next is { } next && on.Contains(next) && context.IsRoot(from.Layout))
            on.RemoveAll(b => b == next);
        var meant = wishes.IsMeant(on);
        return ball => on.Contains(ball) && meant?.Invoke(ball) != false;
    }

    /// <summary>Plants and doubles, the likeliest first.</summary>
    private IEnumerable<PotCandidate> Indirect(Situation from)
    {
        var isMeant = MeantOf(from);
        var (layout, frame) = (from.Layout, from.Frame);
        var stroke = new Stroke(0, 0, 0, Pace.Medium, context.Player.NaturalElevation);
        foreach (var option in TableReading.Indirect(layout, stroke, context.Player, context.Shape, context.Workers, frame.IsOn))
        {
            var (struck, potted) = (layout.Balls[option.Cut.Pot.Struck].Ball, layout.Balls[option.Cut.Pot.Slot].Ball);
            // Of a plant both are red, or balls of an exercise.
            var isOn = struck == potted || (struck.IsRed && potted.IsRed) || frame.Exercise is not null;
            if (option.Chance.Value >= LeastIndirectChance && isOn && isMeant(potted))
                yield return new(new(option.Cut.Pot, potted, option.Cut), option.Chance.Value);
        }
    }
}
