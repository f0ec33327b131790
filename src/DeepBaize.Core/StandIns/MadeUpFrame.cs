using DeepBaize.Core.Advice.Break;
using DeepBaize.Core.Physics;
using DeepBaize.Core.Play;
using DeepBaize.Core.Players;
using DeepBaize.Core.Search;
using DeepBaize.Core.Strokes;
using DeepBaize.Core.Table;
using DeepBaize.Core.Valuing;

namespace DeepBaize.Core.StandIns;

/// <summary>A frame between two made-up players on a made-up table, stroke by stroke.</summary>
public sealed class MadeUpFrame
{
    /// <summary>A pot less likely than this is left for a safety.</summary>
    private const double WorthTrying = 0.35;
    private const int SafetiesTried = 60;

    private readonly TableShape _shape;
    private readonly Skill _skill;
    private readonly Random _random;

    /// <summary>Creates a frame that is about to be opened.</summary>
    public MadeUpFrame(TableShape shape, Skill skill, Random random)
    {
        (_shape, _skill, _random) = (shape, skill, random);
        Situation = Situation.Create(Layout.OfRest(Rack.Opening()), new() { InHand = true });
    }

    /// <summary>The table and the frame for the next stroke.</summary>
    public Situation Situation { get; private set; }

    /// <summary>The simulator, with the last stroke in it.</summary>
    public Simulator Simulator => _simulator ??= new(_shape);
    private Simulator? _simulator;

    /// <summary>The record of the last stroke.</summary>
    public ShotRecord Record { get; } = new();

    /// <summary>Plays the next stroke with a player's error; the situation is then the one that it leaves.</summary>
    /// <returns>The situation that it was played from; null if the frame is over.</returns>
    /// <exception cref="OperationCanceledException">Cancelled.</exception>
    public (Situation From, PlayedStroke Played)? Next(CancellationToken cancel = default)
    {
        var from = Situation;
        if (from.Frame.AwaitsLot)
            from = Situation = from.PlaysFirst(_random.Next(2));
        if (from.Frame.IsOver)
            return null;
        var context = new SearchContext(
            new(from.Frame, Player.Default with { Skill = _skill }, _shape, PlanPreferences.Default),
            new(1),
            cancel
        );
        var workspace = new Workspace(context);
        var choice = new ShotSearch(context).Shallow(workspace, from);
        if (choice is { Chance: > WorthTrying })
        {
            var intention = BreakAdvice.IntentionOf(choice);
            Strike(from, intention.Stroke, _skill.Times(intention.ErrorFactor), intention.Pot);
        }
        else
            Strike(from, Safety(from), _skill, null);
        var played = from.Play(Simulator, Record, Named(from), _shape);
        Situation = played.Leaves;
        return (from, played);
    }

    /// <summary>A free ball is the one struck first: these players say so, as they do of a colour.</summary>
    private Ball? Named(Situation from)
    {
        var first = Record.Events.Find(e => e.IsOfWhiteWithBall) is { Kind: ShotEventKind.Ball } e
            ? from.Layout.Balls[e.Ball + e.Other].Ball
            : (Ball?)null;
        return from.Frame.FreeBall && first is { } ball && !from.Frame.IsOn(ball) ? ball : null;
    }

    private void Strike(Situation from, in Stroke stroke, Skill skill, Pot? pot)
    {
        var scatter = Scatter.Of(from.Layout, stroke, skill, Simulator, Record, pot);
        scatter.Error(StandardDraws.Draw(_random)).Play(Simulator, from.Layout, stroke, Record);
    }

    /// <summary>Of some strokes at balls on, or anywhere, the fair one that brings the white nearest to baulk.</summary>
    private Stroke Safety(Situation from)
    {
        var white = from.Layout.White.At;
        List<Vec2> on = [.. from.OnSlots().Select(slot => from.Layout.Balls[slot].At)];
        var (best, least) = (default(Stroke), double.PositiveInfinity);
        for (var i = 0; i < SafetiesTried; i++)
        {
            var at = on[_random.Next(on.Count)];
            var beside = (_random.NextDouble() - 0.5) * 4 * Dimensions.BallRadius * (at - white).Unit.Left;
            var direction = i % 4 == 3 ? 360 * _random.NextDouble() : (at + beside - white).Direction.Degrees;
            var stroke = new Stroke(direction, 0, 0, 2 + 4 * _random.NextDouble(), Player.Default.NaturalElevation);
            stroke.Play(Simulator, from.Layout, Record);
            var played = from.Play(Simulator, Record, Named(from), _shape);
            var cost = (played.Ruling.IsFoul ? 10 : 0) - 2 * played.Ruling.Points + played.Leaves.Layout.White.At.X;
            if (cost < least)
                (best, least) = (stroke, cost);
        }
        return best;
    }
}
