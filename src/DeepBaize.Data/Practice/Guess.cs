using DeepBaize.Data.Players;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Metadata.Builders;

namespace DeepBaize.Data.Practice;

/// <summary>What was guessed of a stroke before it was shown.</summary>
public enum GuessKind
{
    /// <summary>Where the white of the stroke that is set up stops.</summary>
    Stop,

    /// <summary>Where it stops by stun, follow and screw.</summary>
    Routes,

    /// <summary>Which ball it meets after the pot, or none.</summary>
    Ball,
}

/// <summary>A guess with its answer: how an eye is trained.</summary>
public sealed class Guess : IVersioned
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public required Guid OwnerId { get; init; }
    public required Guid? PlayerId { get; init; }
    public required DateTimeOffset At { get; init; }
    public required GuessKind Kind { get; init; }

    /// <summary>Distance between guess and answer, m: the mean of several; null of a ball.</summary>
    public required double? Error { get; init; }

    /// <summary>Of a ball: whether it was the right one.</summary>
    public required bool? IsRight { get; init; }

    /// <summary>Of a layout that was drawn: its seed.</summary>
    public required int? Seed { get; init; }
    public uint Version { get; init; }
}

internal sealed class GuessConfiguration : IEntityTypeConfiguration<Guess>
{
    public void Configure(EntityTypeBuilder<Guess> guess)
    {
        guess.Property(g => g.Kind).HasConversion<string>().HasMaxLength(20);
        guess.Property(g => g.Version).IsRowVersion();
        guess.HasIndex(g => new
        {
            g.OwnerId,
            g.PlayerId,
            g.At,
        });
        guess.HasOne<ClubPlayer>().WithMany().HasForeignKey(g => g.PlayerId).OnDelete(DeleteBehavior.SetNull);
        guess.HasOne<User>().WithMany().HasForeignKey(g => g.OwnerId).OnDelete(DeleteBehavior.Cascade);
    }
}
