using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Table;
using DeepBaize.Core.Work;
using static DeepBaize.Core.Table.Dimensions;

namespace DeepBaize.Core.Valuing;

/// <summary>One step of the map.</summary>
/// <param name="Share">Of the best place's worth that is reached inside.</param>
/// <param name="Outlines">Closed polygons, m; holes run the other way round.</param>
public sealed record Band(double Share, IReadOnlyList<IReadOnlyList<Vec2>> Outlines);

/// <summary>
/// Where to be for the next ball: by how much the pot from each place of the white is worth more than no pot, in the measure of the answer.
/// </summary>
/// <param name="Best">The best place, m; null if nothing can be potted from anywhere.</param>
public sealed record PositionMap(Vec2? Best, IReadOnlyList<Band> Bands)
{
    private const double Step = 0.03;

    /// <summary>An outline may be drawn so far off, m.</summary>
    private const double Smooth = 0.004;

    /// <summary>Even steps.</summary>
    private static readonly double[] Shares = [0.5, 0.6, 0.7, 0.8, 0.9];

    /// <summary>An area to aim for is worth at least this share of the place that is meant.</summary>
    private const double GoodEnough = 0.92;

    /// <param name="only">The ball that is meant; null for any that is on.</param>
    public static PositionMap Of(
        Situation situation,
        Player player,
        TableShape shape,
        PlanPreferences preferences,
        Workers workers,
        Func<Ball, bool>? only = null
    )
    {
        var objective = Objectives.For(situation.Frame, situation.Frame.Turn, player, player, preferences);
        var grid = new Grid(new(situation, new(player, preferences), objective, new(situation.Layout, shape), shape, only), Bed, workers);
        return new(grid.Best, grid.Best is null ? [] : [.. Shares.Select(s => new Band(s, grid.Outlines(s * grid.BestValue)))]);
    }

    /// <summary>The outline of the good places round one, of those that are worth nearly as much; it may be empty.</summary>
    /// <param name="only">The ball that is meant; null for any that is on.</param>
    public static IReadOnlyList<Vec2> AreaRound(
        Situation situation,
        (Evaluation Evaluation, IObjective Objective) measure,
        PotLines lines,
        TableShape shape,
        Func<Ball, bool>? only,
        Workers workers
    )
    {
        const double reach = 0.5;
        var white = situation.Layout.White.At;
        var question = new Question(situation, measure.Evaluation, measure.Objective, lines, shape, only);
        var value = question.WorthOf(white);
        if (value <= 0)
            return [];
        var area = new Box(
            Math.Max(0, white.X - reach),
            Math.Max(0, white.Y - reach),
            Math.Min(Length, white.X + reach),
            Math.Min(Width, white.Y + reach)
        );
        var grid = new Grid(question, area, workers);
        return grid.Outlines(GoodEnough * value).FirstOrDefault(o => Contours.Contains(o, white)) ?? [];
    }

    /// <summary>What places are asked for.</summary>
    /// <param name="Lines">Ways into the pockets as the layout has its balls.</param>
    /// <param name="Only">The ball that is meant; null for any that is on.</param>
    private sealed record Question(
        Situation Situation,
        Evaluation Evaluation,
        IObjective Objective,
        PotLines Lines,
        TableShape Shape,
        Func<Ball, bool>? Only
    )
    {
        /// <summary>With no pot on, and a safety as it usually is.</summary>
        private readonly double _withoutPot = Objective.Of(Situation.Frame, Outlook.Nothing with { LeftBySafety = UsualLeft });

        /// <summary>How often a safety from somewhere leaves an open pot: what it is does not matter to the differences.</summary>
        private const double UsualLeft = 0.35;

        /// <summary>By how much the pot from a place is worth more than no pot.</summary>
        public double WorthOf(Vec2 white) =>
            Objective.Of(
                Situation.Frame,
                Outlook.Nothing with
                {
                    Best = Evaluation.At(Situation, Lines, white, only: Only),
                    LeftBySafety = UsualLeft,
                }
            ) - _withoutPot;
    }

    /// <summary>Values on a grid of places, with a rim of nothing around.</summary>
    private sealed class Grid
    {
        private readonly double[] _values;
        private readonly int _columns;
        private readonly Vec2 _corner;

        public Grid(Question question, Box area, Workers workers)
        {
            _corner = new(area.MinX, area.MinY);
            _columns = (int)Math.Ceiling((area.MaxX - area.MinX) / Step) + 3;
            var rows = (int)Math.Ceiling((area.MaxY - area.MinY) / Step) + 3;
            _values = new double[_columns * rows];
            workers.InParallel(
                rows - 2,
                row =>
                {
                    for (var i = 1; i < _columns - 1; i++)
                        _values[(row + 1) * _columns + i] = ValueOf(question, At(i, row + 1));
                    return row;
                }
            );
            var best = Array.IndexOf(_values, _values.Max());
            BestValue = _values[best];
            if (BestValue > 0)
                Best = At(best % _columns, best / _columns);
        }

        public double BestValue { get; }

        public Vec2? Best { get; }

        public IReadOnlyList<IReadOnlyList<Vec2>> Outlines(double level) =>
            [.. Contours.Trace(_values, _columns, level, (i, j) => Within(At(i, j), 0)).Select(o => Contours.Simplified(o, Smooth))];

        private static double ValueOf(Question q, Vec2 place)
        {
            // Up against a cushion or a ball the nearest place where the white can lie stands for the one on the grid.
            var white = Within(place, BallRadius);
            var isFree = q.Shape.CanRest(white) && q.Situation.Layout.Balls.Skip(1).All(b => b.Gap(white) >= 0);
            return isFree ? Math.Max(0, q.WorthOf(white)) : 0;
        }

        private static Vec2 Within(Vec2 place, double margin) =>
            new(Math.Clamp(place.X, margin, Length - margin), Math.Clamp(place.Y, margin, Width - margin));

        private Vec2 At(double i, double j) => _corner + new Vec2((i - 1) * Step, (j - 1) * Step);
    }
}
