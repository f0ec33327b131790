using System;
using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace DeepBaize.Data.Migrations
{
    /// <inheritdoc />
    public partial class EscapeFamilies : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "escape_families",
                columns: table => new
                {
                    id = table.Column<Guid>(type: "uuid", nullable: false),
                    owner_id = table.Column<Guid>(type: "uuid", nullable: false),
                    table_id = table.Column<Guid>(type: "uuid", nullable: false),
                    name = table.Column<string>(type: "character varying(80)", maxLength: 80, nullable: false),
                    route = table.Column<string>(type: "character varying(60)", maxLength: 60, nullable: false),
                    point_x = table.Column<double>(type: "double precision", nullable: false),
                    point_y = table.Column<double>(type: "double precision", nullable: false),
                    ball_x = table.Column<double>(type: "double precision", nullable: false),
                    ball_y = table.Column<double>(type: "double precision", nullable: false),
                    side = table.Column<double>(type: "double precision", nullable: false),
                    height = table.Column<double>(type: "double precision", nullable: false),
                    cue_speed = table.Column<double>(type: "double precision", nullable: false),
                    elevation = table.Column<double>(type: "double precision", nullable: true),
                    places = table.Column<double[]>(type: "double precision[]", nullable: false),
                    kept_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    xmin = table.Column<uint>(type: "xid", rowVersion: true, nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_escape_families", x => x.id);
                    table.ForeignKey(
                        name: "fk_escape_families_tables_table_id",
                        column: x => x.table_id,
                        principalTable: "tables",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                    table.ForeignKey(
                        name: "fk_escape_families_users_owner_id",
                        column: x => x.owner_id,
                        principalTable: "users",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade);
                });

            migrationBuilder.CreateIndex(
                name: "ix_escape_families_owner_id",
                table: "escape_families",
                column: "owner_id");

            migrationBuilder.CreateIndex(
                name: "ix_escape_families_table_id_kept_at",
                table: "escape_families",
                columns: new[] { "table_id", "kept_at" });
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "escape_families");
        }
    }
}
