using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Players;
using DeepBaize.Data;
using DeepBaize.Data.Players;
using DeepBaize.Web.Records;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Web.Players;

/// <summary>Who plays: what reach and chances are judged for.</summary>
public record PlayerEntry
{
    [Description("right or left.")]
    public string Hand { get; init; } = "right";

    [Description("How tall, m.")]
    public double Height { get; init; } = 1.75;

    [Description("tour, county, club, learner, or own for the parts set by hand.")]
    public string Skill { get; init; } = "county";

    [Description("The parts set by hand; kept while another skill is chosen.")]
    public SkillEntry? Own { get; init; }

    [Description("On cuts: plain, or helping for a touch of helping side.")]
    public string SideHabit { get; init; } = "plain";

    [Description("Of the butt above level where nothing asks for more, degrees, 0 to 15.")]
    public double NaturalElevation { get; init; } = 3;

    public static IReadOnlyList<string> SideHabits { get; } = ["plain", "helping"];

    /// <exception cref="InputException">A figure out of range, or an unknown name.</exception>
    public Player Checked()
    {
        if (!SideHabits.Contains(SideHabit))
            throw new InputException("player.sideHabit", "There is no such habit.", string.Join(", ", SideHabits));
        return Player.Create(Hand, Height, Skill, NaturalElevation, Own?.ToSkill());
    }
}

/// <summary>The player as stored, and as saved over what was read.</summary>
public sealed record StoredPlayer : PlayerEntry
{
    [Description("As read: a save over a newer one is refused with 409.")]
    public required uint Version { get; init; }

    public static StoredPlayer Of(User user) =>
        new()
        {
            Hand = user.Hand,
            Height = user.Height,
            Skill = user.Skill,
            Own = user.OwnSkill,
            SideHabit = user.SideHabit,
            NaturalElevation = user.NaturalElevation,
            Version = user.Version,
        };
}

public static class PlayerEndpoints
{
    private static readonly RecordKind Kind = new(
        "player",
        "Start Deep Baize again.",
        "Look at the newer figures, and save yours over them."
    );

    public static void MapPlayer(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/player").WithTags("Player").ProducesProblem(400).ProducesProblem(503);
        group
            .MapGet(
                "",
                async (DeepBaizeContext db, CancellationToken cancel) =>
                    StoredPlayer.Of(await db.Users.AsNoTracking().SingleAsync(u => u.Id == User.LocalId, cancel))
            )
            .WithName("readPlayer")
            .WithSummary("Hand, height, skill, habit and how the cue lies");
        group
            .MapPut("", Save)
            .Saves(Kind.Name)
            .WithName("savePlayer")
            .WithSummary("Saves hand, height, skill, habit and how the cue lies")
            .ProducesProblem(409);
    }

    private static Task<Results<Ok<StoredPlayer>, ProblemHttpResult>> Save(
        StoredPlayer player,
        DeepBaizeContext db,
        CancellationToken cancel
    )
    {
        player.Checked();
        return db.ChangeAsync(
            Kind,
            db.Users,
            (User.LocalId, player.Version, player),
            user =>
                (user.Hand, user.Height, user.Skill, user.OwnSkill, user.SideHabit, user.NaturalElevation) = (
                    player.Hand,
                    player.Height,
                    player.Skill,
                    player.Own,
                    player.SideHabit,
                    player.NaturalElevation
                ),
            StoredPlayer.Of,
            cancel
        );
    }
}
