using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace DeepBaize.Data.Migrations
{
    /// <summary>
    /// Until now a miss after which the offender played again was meant as played from where the balls had been: that is "replaced" now,
    /// and "playAgain" is from where they lie.
    /// </summary>
    public partial class MissesReplaced : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder) =>
            migrationBuilder.Sql(Moved("playAgain", "replaced"));

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder) =>
            migrationBuilder.Sql(Moved("replaced", "playAgain"));

        private static string Moved(string from, string to) =>
            $$"""
            UPDATE frames SET shots = (
                SELECT jsonb_agg(
                    CASE WHEN (shot ->> 'missCalled')::boolean AND (shot ->> '{{from}}')::boolean
                        THEN shot || '{"{{from}}": false, "{{to}}": true}'::jsonb
                        ELSE shot END
                    ORDER BY place)
                FROM jsonb_array_elements(shots) WITH ORDINALITY AS told (shot, place))
            WHERE jsonb_array_length(shots) > 0;
            """;
    }
}
