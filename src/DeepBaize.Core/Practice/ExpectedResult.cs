using DeepBaize.Core.Physics;
using DeepBaize.Core.Players;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;

namespace DeepBaize.Core.Practice;

/// <summary>What a player of some skill makes of one step: worked out by playing it many times with that player's errors.</summary>
/// <param name="Done">Share of the strokes that meet the whole rule.</param>
/// <param name="Likely">Of the smallest area that holds 68 % of the places where the white came to rest; m.</param>
/// <param name="Spread">Of those places; null if the white hardly ever stays.</param>
/// <param name="Way">The white's way as the stroke is meant, m.</param>
/// <param name="Stroke">As it was played: aimed, with the butt as the cue lies.</param>
public sealed record ExpectedResult(
    Estimate Done,
    IReadOnlyList<IReadOnlyList<Vec2>> Likely,
    StopSpread? Spread,
    IReadOnlyList<Vec2> Way,
    Stroke Stroke
)
{
    /// <summary>A share is then known to about three in a hundred: enough beside a player's own twenty attempts.</summary>
    private const int Strokes = 256,
        Batch = 32;

    /// <summary>From fewer places an outline would be an accident.</summary>
    private const int FewestToOutline = 100;

    private static readonly ErrorStream Told = ErrorStream.Named("practice");

    /// <summary>Errors used to choose a stroke; reports use another stream.</summary>
    private static readonly ErrorStream Choosing = ErrorStream.Named("practice-choosing");

    /// <exception cref="InputException">The step cannot be played.</exception>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public static ExpectedResult Of(Step step, Player player, TableShape shape, Workers workers)
    {
        var question = new Question(step, player, shape);
        var played = question.Play(Told, workers.Bounded(Strokes, 64), Batch, workers);
        List<Vec2> rests = [.. played.Select(p => p.White).OfType<Vec2>()];
        var simulator = new Simulator(shape);
        var record = new ShotRecord();
        question.Stroke.Play(simulator, question.Layout, record);
        return new(
            Sums.Of(played, p => p.IsDone ? 1 : 0).Share,
            rests.Count < FewestToOutline ? [] : new Density(rests, Dimensions.Bed).Outline(0.68),
            StopSpread.Of(rests),
            [.. ShotPath.Points(record, question.Layout.Balls.Count, ShotPath.Drawn)[0].Select(p => p.At)],
            question.Stroke
        );
    }

    /// <summary>The share alone, from fewer strokes of another stream, for choosing.</summary>
    internal static double Quickly(Step step, Player player, TableShape shape, Workers workers, int strokes = 64) =>
        new Question(step, player, shape).Play(Choosing, strokes, Batch, workers).Count(p => p.IsDone) / (double)strokes;

    /// <summary>What one attempt of many came to.</summary>
    private readonly record struct Attempt(bool IsDone, Vec2? White);

    private sealed class Question
    {
        private readonly Step _step;
        private readonly TableShape _shape;
        private readonly Pot? _pot;
        private readonly Scatter _scatter;

        public Question(Step step, Player player, TableShape shape)
        {
            (_step, _shape) = (step, shape);
            Layout = step.LayoutOn(shape);
            _pot = step.PotIn(Layout);
            Stroke = step.StrokeOn(Layout, shape, player);
            var skill = player.Skill.Times(Reach.Of(Layout, Stroke, player).ErrorFactor);
            _scatter = Scatter.Of(Layout, Stroke, skill, shape, _pot);
        }

        public Layout Layout { get; }
        public Stroke Stroke { get; }

        public List<Attempt> Play(ErrorStream stream, int strokes, int batch, Workers workers) =>
            [
                .. workers
                    .InParallel((strokes + batch - 1) / batch, b =>
                        Batch(stream, b * batch, Math.Min(strokes, (b + 1) * batch), workers.Cancel)
                    )
                    .SelectMany(a => a),
            ];

        private List<Attempt> Batch(ErrorStream stream, int from, int to, CancellationToken cancel)
        {
            var simulator = new Simulator(_shape, Simulator.Coarse);
            var record = new ShotRecord();
            var attempts = new List<Attempt>(to - from);
            for (var i = from; i < to; i++)
            {
                cancel.ThrowIfCancellationRequested();
                _scatter.Error(stream.At(i)).Play(simulator, Layout, Stroke, record);
                var seen = Observation.Of(record, simulator, Layout, _pot);
                attempts.Add(new(_step.IsDone(seen) == true, seen.White));
            }
            return attempts;
        }
    }
}
