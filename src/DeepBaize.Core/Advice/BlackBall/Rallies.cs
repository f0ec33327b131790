using DeepBaize.Core.Play;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;

namespace DeepBaize.Core.Advice.BlackBall;

/// <summary>
/// Rallies at the last black, played out to win or loss by both players' skill, where the next pot and the next foul end the frame: one
/// judge for the openings and for whatever is reevaluated later.
/// </summary>
public sealed class Rallies(SearchContext mine, SearchContext theirs)
{
    private const int MostStrokes = 24;

    /// <summary>Strokes with errors by which a player weighs the pot against the safety.</summary>
    private const int Weighed = 6;

    private static readonly ErrorStream Weighing = ErrorStream.Named("rallies: weigh");

    /// <summary>Returns the share of rallies that the player of this first stroke wins.</summary>
    public Estimate Wins(Situation from, Stroke first, int rallies, ErrorStream errors)
    {
        var won = mine.InParallel(rallies, (_, i) => IsWon(from, first, errors, i));
        return Sums.Of(won, isWon => isWon ? 1 : 0).Share;
    }

    /// <summary>Plays the i-th rally to its end; whether the one who has played the first stroke wins.</summary>
    public bool IsWon(Situation from, Stroke first, ErrorStream errors, int index)
    {
        var situation = from;
        // Each player's own tools, one rally being one piece of work.
        Hand[] hands = [new(mine, new(mine), new(mine)), new(theirs, new(theirs), new(theirs))];
        for (var n = 0; n < MostStrokes; n++)
        {
            var (context, workspace, _) = hands[n % 2];
            var stroke = n == 0 ? first : Chosen(hands[n % 2], situation);
            if (stroke is not { } s)
                return n % 2 == 1;
            var scatter = workspace.ScatterOf(situation.Layout, s);
            var played = workspace.Play(situation, s, scatter.Error(errors.Part(n).At(index)), Ball.Black);
            if (played.Ruling.IsFoul)
                return n % 2 == 1;
            if (played.Ruling.Points > 0)
                return n % 2 == 0;
            situation = played.Leaves;
        }
        // So evenly matched that it goes on: a toss.
        return errors.Heads(index);
    }

    /// <summary>What a player of a rally needs.</summary>
    private sealed record Hand(SearchContext Context, Workspace Workspace, SafetyStrokes Strokes);

    private const double HardlyOn = 0.05;

    private Stroke? Chosen(Hand hand, Situation situation)
    {
        var (context, workspace, strokes) = hand;
        var lines = workspace.LinesOf(situation.Layout);
        var isOn = context.Evaluation.Of(situation, lines).Chance > HardlyOn;
        Stroke? pot = isOn ? new ShotSearch(context).Shallow(workspace, situation)?.Stroke : null;
        Stroke? safety = strokes.Shallow(workspace, situation)?.Stroke;
        // The pot is gone for when it is worth it: both its misses and the safety's own errors are weighed.
        if (pot is not null && safety is not null)
        {
            double Wins(in Stroke stroke) => strokes.MeanOf(workspace, situation, stroke, Ball.Black, Weighing, Weighed);
            return Wins(pot.Value) >= Wins(safety.Value) ? pot : safety;
        }
        if ((pot ?? safety) is { } only)
            return only;
        // Nothing straight: the plain aim off one cushion.
        var (white, black) = (situation.Layout.White.At, situation.Layout.Balls[1].At);
        foreach (var order in MirrorAim.Orders(2))
            if (MirrorAim.Of(white, black, order, context.Shape) is { } aim)
                return new(aim.AimDegrees, 0, 0, Pace.Medium, 0);
        return null;
    }
}
