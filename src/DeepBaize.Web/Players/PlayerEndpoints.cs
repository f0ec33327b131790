using System.ComponentModel;
using DeepBaize.Core;
using DeepBaize.Core.Players;
using DeepBaize.Data;
using DeepBaize.Data.Players;
using DeepBaize.Web.InHand;
using DeepBaize.Web.Records;
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
        return Player.Create(Hand, Height, Skill, NaturalElevation, Own?.ToSkill("player.own"));
    }
}

/// <summary>A player by name, as one is saved.</summary>
public record NamedPlayer : PlayerEntry
{
    [Description("Up to 80 characters; if it is not said, the name stays.")]
    public string? Name { get; init; }

    [Description("The player's own scale of paces: up to 10 points, both numbers rising; empty for the standard scale.")]
    public IReadOnlyList<PacePoint>? PaceScale { get; init; }

    [Description("As read: a save over a newer one is refused with 409. Not needed for a new one.")]
    public uint Version { get; init; }
}

/// <summary>A player as stored.</summary>
public sealed record StoredPlayer : NamedPlayer
{
    public required Guid Id { get; init; }

    public static StoredPlayer Of(ClubPlayer player) =>
        new()
        {
            Id = player.Id,
            Name = player.Name,
            Hand = player.Hand,
            Height = player.Height,
            Skill = player.Skill,
            Own = player.OwnSkill,
            SideHabit = player.SideHabit,
            NaturalElevation = player.NaturalElevation,
            PaceScale = player.PaceScale,
            Version = player.Version,
        };
}

public static class PlayerEndpoints
{
    private static readonly ThingKind<ClubPlayer, NamedPlayer, StoredPlayer> Kind = new(
        new("player", "It may have been put away.", "Look at the newer figures, and save yours over them."),
        "players",
        now =>
            new()
            {
                OwnerId = User.LocalId,
                Name = "",
                CreatedAt = now,
                UpdatedAt = now,
            },
        Write,
        StoredPlayer.Of,
        entry => (entry.Name, entry.Version)
    );

    public static void MapPlayer(this IEndpointRouteBuilder app)
    {
        app.MapThings(Kind);
        var group = app.MapGroup("/api/player").WithTags("Player").ProducesProblem(400).ProducesProblem(503);
        group
            .MapGet(
                "",
                async (DeepBaizeContext db, CancellationToken cancel) =>
                {
                    var inHand = await db.InHandAsync(cancel);
                    return StoredPlayer.Of(await db.Players.AsNoTracking().SingleAsync(p => p.Id == inHand.PlayerId, cancel));
                }
            )
            .WithName("readPlayer")
            .WithSummary("The player in hand: hand, height, skill, habit and how the cue lies");
        group
            .MapPut(
                "",
                async (NamedPlayer player, DeepBaizeContext db, TimeProvider time, CancellationToken cancel) =>
                    await db.SaveAsync(Kind, ((await db.InHandAsync(cancel)).PlayerId ?? default, player), time, cancel)
            )
            .Saves(Kind.Record.Name)
            .WithName("savePlayer")
            .WithSummary("Saves the player in hand")
            .ProducesProblem(404)
            .ProducesProblem(409);
    }

    private static void Write(ClubPlayer player, NamedPlayer entry)
    {
        entry.Checked();
        var checks = new Checks("player");
        PaceScale.Check(checks, "paceScale", entry.PaceScale ?? []);
        checks.ThrowIfAny();
        (player.Hand, player.Height, player.Skill, player.OwnSkill, player.SideHabit) = (
            entry.Hand,
            entry.Height,
            entry.Skill,
            // With the parts as they are named now.
            entry.Own
                is { } own
                ? SkillEntry.Of(own.ToSkill("player.own"))
                : null,
            entry.SideHabit
        );
        (player.NaturalElevation, player.PaceScale) = (entry.NaturalElevation, entry.PaceScale ?? []);
    }
}
