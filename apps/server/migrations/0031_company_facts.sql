CREATE TABLE "company_facts" (
	"contact_id" bigint PRIMARY KEY NOT NULL,
	"list_id" uuid NOT NULL,
	"attempt_id" uuid NOT NULL,
	"provider" text NOT NULL,
	"domain" text NOT NULL,
	"site" text NOT NULL,
	"page" text NOT NULL,
	"industry" text NOT NULL,
	"headcount" integer,
	"told_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
ALTER TABLE "company_facts" ADD CONSTRAINT "company_facts_list_id_lists_id_fk" FOREIGN KEY ("list_id") REFERENCES "public"."lists"("id") ON DELETE no action ON UPDATE no action;