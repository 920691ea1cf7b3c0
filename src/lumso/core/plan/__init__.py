"""The composed answer: amounts, findings and pictures of a job."""
