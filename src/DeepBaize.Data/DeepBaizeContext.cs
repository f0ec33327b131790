using DeepBaize.Data.Answers;
using DeepBaize.Data.Cues;
using DeepBaize.Data.Devices;
using DeepBaize.Data.Escapes;
using DeepBaize.Data.Frames;
using DeepBaize.Data.Learning;
using DeepBaize.Data.Planning;
using DeepBaize.Data.Players;
using DeepBaize.Data.Positions;
using DeepBaize.Data.Practice;
using DeepBaize.Data.Shots;
using DeepBaize.Data.Tables;
using Microsoft.EntityFrameworkCore;

namespace DeepBaize.Data;

/// <summary>The database. Tables and columns in snake_case; times with zone.</summary>
public sealed class DeepBaizeContext(DbContextOptions<DeepBaizeContext> options) : DbContext(options)
{
    public DbSet<User> Users => Set<User>();
    public DbSet<ClubPlayer> Players => Set<ClubPlayer>();
    public DbSet<ClubTable> Tables => Set<ClubTable>();
    public DbSet<ClubCue> Cues => Set<ClubCue>();
    public DbSet<Position> Positions => Set<Position>();
    public DbSet<SavedShot> Shots => Set<SavedShot>();
    public DbSet<SavedPlan> Plans => Set<SavedPlan>();
    public DbSet<FrameRecord> Frames => Set<FrameRecord>();
    public DbSet<RoutineRecord> Routines => Set<RoutineRecord>();
    public DbSet<PracticeSession> Sessions => Set<PracticeSession>();
    public DbSet<Attempt> Attempts => Set<Attempt>();
    public DbSet<Guess> Guesses => Set<Guess>();
    public DbSet<LaidStep> LaidSteps => Set<LaidStep>();
    public DbSet<KeptAnswer> Answers => Set<KeptAnswer>();
    public DbSet<SaveCheck> SaveChecks => Set<SaveCheck>();
    public DbSet<EscapeCorrection> Corrections => Set<EscapeCorrection>();
    public DbSet<KeptFamily> Families => Set<KeptFamily>();
    public DbSet<LearningTrial> Trials => Set<LearningTrial>();
    public DbSet<TakenFigures> Taken => Set<TakenFigures>();
    public DbSet<Camera> Cameras => Set<Camera>();
    public DbSet<CameraStroke> CameraStrokes => Set<CameraStroke>();
    public DbSet<CueStroke> CueStrokes => Set<CueStroke>();

    /// <summary>How every context connects, here and in the tools.</summary>
    public static void Configure(DbContextOptionsBuilder options, string connection) =>
        options.UseNpgsql(connection).UseSnakeCaseNamingConvention();

    protected override void OnModelCreating(ModelBuilder model)
    {
        model.Entity<User>(user =>
        {
            user.Property(u => u.Name).HasMaxLength(200);
            user.Property(u => u.Version).IsRowVersion();
            user.HasOne<ClubPlayer>().WithMany().HasForeignKey(u => u.PlayerId).OnDelete(DeleteBehavior.SetNull);
            user.HasOne<ClubTable>().WithMany().HasForeignKey(u => u.TableId).OnDelete(DeleteBehavior.SetNull);
            user.HasOne<ClubCue>().WithMany().HasForeignKey(u => u.CueId).OnDelete(DeleteBehavior.SetNull);
        });
        model.ApplyConfigurationsFromAssembly(typeof(DeepBaizeContext).Assembly);
    }
}
