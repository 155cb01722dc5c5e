DROP INDEX "contact_emails_list";--> statement-breakpoint
DROP INDEX "contact_numbers_list";