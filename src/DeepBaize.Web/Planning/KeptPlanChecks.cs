using DeepBaize.Core;
using DeepBaize.Core.Reading;
using DeepBaize.Core.Sampling;
using DeepBaize.Core.Table;
using DeepBaize.Data.Positions;
using DeepBaize.Web.Positions;

namespace DeepBaize.Web.Planning;

/// <summary>
/// Whether an answer that is to be kept can have been one: shots that can be played from the table they are said to be played from, shares
/// that are shares, points of a break, places at the table.
/// </summary>
internal sealed class KeptPlanChecks
{
    private const int MostPlans = 20,
        MostShots = 60,
        MostAlternatives = 200,
        MostPoints = 155,
        LongestId = 200;

    /// <summary>Bound on figures that are explained beside a shot: points, mm, degrees.</summary>
    private const double LargestFigure = 10_000;

    /// <summary>How far off the bed a ball may come to lie, m.</summary>
    private const double Beyond = 5;

    private readonly Checks _checks = new("body.answer");

    /// <exception cref="InputException">It cannot.</exception>
    public static void Check(PositionContent from, PlansProgress answer)
    {
        var check = new KeptPlanChecks();
        check.Whole(answer);
        foreach (var (plan, i) in answer.Plans.Select((p, i) => (p, i)))
        {
            check.Plan(plan, $"plans[{i}]");
            check.Id(plan.Id, $"plans[{i}].id");
        }
        foreach (var (alternative, i) in answer.Alternatives.Select((a, i) => (a, i)))
        {
            check.Choice(alternative.Choice, $"alternatives[{i}].choice");
            check.Id(alternative.Id, $"alternatives[{i}].id");
            check.Figure(alternative.Value, $"alternatives[{i}].value", -LargestFigure, LargestFigure);
            check.Figure(alternative.Points, $"alternatives[{i}].points", -LargestFigure, LargestFigure);
        }
        // The first shot is played from the table that it is kept with.
        var begins = answer.Plans.Where(p => p.Shots.Count > 0).Select(p => p.Shots[0].Content.Balls);
        check._checks.That(
            begins.All(balls => balls.OrderBy(b => b.Id).SequenceEqual(from.Balls.OrderBy(b => b.Id))),
            "plans",
            "The plan begins from other balls than it is kept with.",
            "a plan for this table"
        );
        check._checks.ThrowIfAny();
    }

    private void Id(string id, string field) =>
        _checks.That(id.Length <= LongestId, field, "The name is too long.", $"up to {LongestId} characters");

    private void Whole(PlansProgress answer)
    {
        _checks.That(answer.Plans.Count > 0, "plans", "There is no plan to keep.", "at least one plan");
        _checks.That(answer.Wait is null, "wait", "The plan has not begun.", "null");
        _checks.That(answer.Unit is "win" or "points" or "target", "unit", "There is no such measure.", "win, points, target");
        _checks.Range("modelError", answer.ModelError, 0, LargestFigure);
        _checks.Range("share", answer.Share, 0, 1);
        _checks.Range("looked", answer.Looked, 0, 1);
        _checks.Range("examined", answer.Examined, 0, 1e12);
        _checks.Range("plans.length", answer.Plans.Count, 0, MostPlans);
        _checks.Range("alternatives.length", answer.Alternatives.Count, 0, MostAlternatives);
        _checks.ThrowIfAny();
    }

    private void Plan(PlanResult plan, string at)
    {
        _checks.Range($"{at}.shots.length", plan.Shots.Count, 1, MostShots);
        foreach (var (shot, i) in plan.Shots.Select((s, i) => (s, i)))
            Shot(shot, $"{at}.shots[{i}]");
        if (plan.Turn is not { } turn)
            return;
        Content(turn.Content, $"{at}.turn");
        Names(turn.Ball, null, $"{at}.turn");
        _checks.Range($"{at}.turn.value", turn.Value, -LargestFigure, LargestFigure);
    }

    private void Content(PositionContent content, string at)
    {
        try
        {
            CheckedContent.Of(content).ToSituation();
        }
        catch (InputException e)
        {
            _checks.AddRange(e.Errors.Select(error => error with { Field = $"body.answer.{at}.content.{error.Field}" }));
        }
    }

    private void Shot(PlanShotResult shot, string at)
    {
        Content(shot.Content, at);
        Choice(shot.Choice, $"{at}.choice");
        Share(shot.Alive, $"{at}.alive");
        _checks.Range($"{at}.points", shot.Points, 0, MostPoints);
        foreach (var (point, i) in shot.Path.Select((p, i) => (p, i)))
            Place(point.X, point.Y, $"{at}.path[{i}]");
        foreach (var (place, i) in shot.Area.Select((p, i) => (p, i)))
            Place(place.X, place.Y, $"{at}.area[{i}]");
        foreach (var (cover, name) in new[] { (shot.Long, "long"), (shot.Short, "short") })
        {
            Place(cover.X, cover.Y, $"{at}.{name}");
            Names(cover.Ball, cover.Pocket, $"{at}.{name}");
            _checks.Range($"{at}.{name}.chance", cover.Chance, 0, 1);
        }
        foreach (var (reason, i) in shot.Reasons.Select((r, i) => (r, i)))
        {
            Names(reason.Ball, reason.Pocket, $"{at}.reasons[{i}]");
            _checks.Range($"{at}.reasons[{i}].amount", reason.Amount, -LargestFigure, LargestFigure);
            _checks.Range($"{at}.reasons[{i}].other", reason.Other, -LargestFigure, LargestFigure);
        }
        foreach (var (warning, i) in shot.Warnings.Select((w, i) => (w, i)))
        {
            Names(warning.Ball, warning.Pocket, $"{at}.warnings[{i}]");
            _checks.Range($"{at}.warnings[{i}].amount", warning.Amount, 0, LargestFigure);
        }
        if (shot.Study is { } study)
            Study(study, $"{at}.study");
        Reds(shot.RedsBefore, $"{at}.redsBefore");
        Reds(shot.RedsAfter, $"{at}.redsAfter");
    }

    private void Study(ShotStudyResult study, string at)
    {
        if (study.Miss is { } miss)
        {
            Share(miss.Share, $"{at}.miss.share");
            Figure(miss.Cost, $"{at}.miss.cost", -LargestFigure, LargestFigure);
            Share(miss.LeavesPot, $"{at}.miss.leavesPot");
        }
        if (study.Window is { } window)
            foreach (
                var (figure, name) in new[] { (window.Loss, "loss"), (window.Down, "down"), (window.Up, "up"), (window.Error, "error") }
            )
                _checks.Range($"{at}.window.{name}", figure, 0, LargestFigure);
        if (study.Cannon is not { } cannon)
            return;
        Names(cannon.Ball, null, $"{at}.cannon");
        _checks.Range($"{at}.cannon.fullness", cannon.Fullness, 0, 1);
        _checks.Range($"{at}.cannon.speed", cannon.Speed, 0, LargestFigure);
        _checks.Range($"{at}.cannon.moved", cannon.Moved, 0, Ball.Count);
        _checks.Range($"{at}.cannon.freed", cannon.Freed, 0, Ball.Count);
        foreach (var (share, name) in new[] { (cannon.Hit, "hit"), (cannon.Sticks, "sticks"), (cannon.On, "on") })
            Share(share, $"{at}.cannon.{name}");
    }

    private void Reds(RedSpread? reds, string at)
    {
        if (reds is null)
            return;
        foreach (var (count, name) in new[] { (reds.Black, "black"), (reds.Pink, "pink"), (reds.Middle, "middle"), (reds.Baulk, "baulk") })
        {
            _checks.Range($"{at}.{name}.all", count.All, 0, 15);
            _checks.Range($"{at}.{name}.open", count.Open, 0, count.All);
        }
    }

    private void Choice(ChoiceResult choice, string at)
    {
        Share(choice.Chance, $"{at}.chance");
        Share(choice.Foul, $"{at}.foul");
        Share(choice.Holds, $"{at}.holds");
        Names(choice.Nominated, choice.Stroke.Pot?.Pocket, at);
        _checks.Range($"{at}.points", choice.Points, 0, MostPoints);
        _checks.Range($"{at}.cutDegrees", choice.CutDegrees, -180, 180);
        _checks.Range($"{at}.gain", choice.Gain, -LargestFigure, LargestFigure);
        Figure(choice.Value, $"{at}.value", -LargestFigure, LargestFigure);
        Names(choice.Reach.Over, null, $"{at}.reach.over");
        foreach (var cushion in choice.Cushions)
            _checks.That(Cushions.TryParse(cushion, out _), $"{at}.cushions", "There is no such cushion.", Cushions.AllowedNames);
        foreach (var ball in choice.Balls)
            Names(ball, null, $"{at}.balls");
    }

    private void Names(string? ball, string? pocket, string at)
    {
        _checks.That(
            ball is null || Ball.TryParse(ball, out _),
            $"{at}.ball",
            "There is no such ball.",
            "white, red-1 to red-15, yellow … black"
        );
        _checks.That(pocket is null || Pockets.TryParse(pocket, out _), $"{at}.pocket", "There is no such pocket.", Pockets.AllowedNames);
    }

    private void Place(double x, double y, string at)
    {
        _checks.Range($"{at}.x", x, -Beyond, Dimensions.Length + Beyond, " m");
        _checks.Range($"{at}.y", y, -Beyond, Dimensions.Width + Beyond, " m");
    }

    /// <summary>Shares are sums of weights, so the last digit is not held against them.</summary>
    private void Share(Estimate share, string at) => Figure(share, at, -1e-9, 1 + 1e-9);

    private void Figure(Estimate figure, string at, double least, double most)
    {
        _checks.Range($"{at}.value", figure.Value, least, most);
        _checks.Range($"{at}.error", figure.Error, 0, Math.Max(1, most));
        _checks.Range($"{at}.strokes", figure.Strokes, 0, 1e9);
    }
}
