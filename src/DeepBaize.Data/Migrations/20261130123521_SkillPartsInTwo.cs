using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace DeepBaize.Data.Migrations
{
    /// <inheritdoc />
    public partial class SkillPartsInTwo : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            // The tip's error was one figure for height and side; cushions had none, and the rest cost half as much again.
            migrationBuilder.Sql(
                """
                UPDATE players
                SET own_skill = (own_skill - 'tip')
                    || jsonb_build_object('height', own_skill->'tip', 'side', own_skill->'tip', 'cushion', 0, 'rest', 1.5)
                WHERE own_skill ? 'tip'
                """
            );
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            // One figure again: the larger one, for it makes the miscues.
            migrationBuilder.Sql(
                """
                UPDATE players
                SET own_skill = (own_skill - 'height' - 'side' - 'cushion' - 'rest')
                    || jsonb_build_object('tip', greatest((own_skill->>'height')::float8, (own_skill->>'side')::float8))
                WHERE own_skill ? 'height' AND NOT coalesce(own_skill->'tip' <> 'null', false)
                """
            );
        }
    }
}
